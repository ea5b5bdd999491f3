/** How the field looks in which anything is found, before and after what fits is there. */
export const FIND = "Client, document, code, screen or action";
export const FIELD = "entry mb-2 text-[16px]";
