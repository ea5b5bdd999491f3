import fc from "fast-check";

/** Properties draw the same cases on every machine; `FISCALON_SEED=<number>` draws others, to look further. */
fc.configureGlobal({ seed: Number(process.env.FISCALON_SEED ?? 20_261_128) });
