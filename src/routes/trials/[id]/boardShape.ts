/** How the answers under one set of conditions are drawn. */

/** More variants than this are rows of one table. */
const MOST_BOARDS = 2;

export const isMatrix = ({ answers }: { answers: readonly unknown[] }): boolean => answers.length > MOST_BOARDS;
