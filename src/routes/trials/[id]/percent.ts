/** A share of the error level: "0.5 %", "95 %". */
export const percentOf = (share: number): string =>
	`${(share * 100).toFixed(share < 0.1 ? 2 : 1).replace(/\.?0+$/, '')} %`;
