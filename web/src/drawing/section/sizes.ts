/** Pixels of the section: the rule at the left, the bars, and the list beside them. */
export const RULE_X = 34
export const BAR_X = 42
export const BAR_W = 62
export const LABEL_X = 132
export const ROW = 34
export const FOOT = 28
export const HEAD = 12
