import workerpool from "workerpool";
import { tablePdf } from "./tablePdf.ts";

workerpool.worker({ tablePdf });
