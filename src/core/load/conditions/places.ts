/** Where a load comes from: what a region adds to the round trip of a line that ends next to the site (house table). */
export interface Place {
	id: string;
	name: string;
	/** Added to the round trip of the network, ms. */
	extraRoundTripMs: number;
}

/**
 * Typical round trips from a visitor's region to a site hosted in western Europe, beyond the visitor's own line.
 * House: rounded from the distance (light in fibre takes about 1 ms per 100 km of round trip) and half as much again
 * for
 * detours; no measurement of any network stands behind them.
 */
export const PLACES: readonly Place[] = [
	{ id: 'near', name: 'Same region as the site', extraRoundTripMs: 0 },
	{ id: 'country', name: 'Same country', extraRoundTripMs: 10 },
	{ id: 'continent', name: 'Same continent', extraRoundTripMs: 30 },
	{ id: 'north-america-east', name: 'North America, east', extraRoundTripMs: 90 },
	{ id: 'north-america-west', name: 'North America, west', extraRoundTripMs: 140 },
	{ id: 'south-america', name: 'South America', extraRoundTripMs: 200 },
	{ id: 'africa-south', name: 'Southern Africa', extraRoundTripMs: 170 },
	{ id: 'south-asia', name: 'South Asia', extraRoundTripMs: 130 },
	{ id: 'east-asia', name: 'East Asia', extraRoundTripMs: 230 },
	{ id: 'oceania', name: 'Oceania', extraRoundTripMs: 280 }
];

/** The place with this id; unknown ones count as near. */
export function placeOf(id: string): Place {
	return PLACES.find((place) => place.id === id) ?? PLACES[0]!;
}
