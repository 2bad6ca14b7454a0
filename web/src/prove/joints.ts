/** How a joint can be welded, and what dye penetrant can say of it. */
export const PROCESSES = ["MIG/MAG", "TIG", "stick"] as const;
export const DYES = ["not done", "clear", "marks"] as const;
