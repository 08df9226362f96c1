/** What the rows of a client, its sites, pages and setups may hold: by the schemas of the app’s own doors. */
import * as v from 'valibot';
import { ClientInput } from '$core/clients/client';
import { SiteInput } from '$core/clients/site';
import { FieldReading } from '$core/field/reading';
import { VisitSettings } from '$core/field/visitSettings';
import { WebAddress } from '$core/load/requests/addressInput';
import { VisitorState } from '$core/load/journey/visitorState';
import { LibraryComponent } from '$core/setups/component';
import {
	amount,
	day,
	flag,
	host,
	id,
	json,
	list,
	maybe,
	named,
	share,
	text,
	time,
	together,
	type RowSchema
} from './columns';

const hostsIn = (joined: string) => joined.split(',').filter(Boolean);
const hostList = v.optional(text(8000), '');

const client = together(
	{
		id,
		name: named(120),
		note: v.optional(text(2000), ''),
		language: v.optional(text(2), 'en'),
		currency: v.optional(text(3), 'EUR'),
		settings: v.optional(json(v.record(v.string(), v.unknown())), '{}'),
		archived_at: maybe(time)
	},
	ClientInput,
	({ settings, ...row }: { settings: string }) => ({ ...(JSON.parse(settings) as object), ...row })
);

interface SiteColumns {
	name: string;
	host: string;
	role: string;
	hosts: string;
	cdn_hosts: string;
	preview_host: string;
	place: string;
}

const site = together(
	{
		id,
		client_id: id,
		host: text(260),
		name: named(120),
		scheme: v.optional(text(10), 'https'),
		role: text(20),
		hosts: hostList,
		cdn_hosts: hostList,
		preview_host: v.optional(text(260), ''),
		preview_access: v.optional(text(500), ''),
		place: v.optional(text(60), ''),
		rest_visits: v.optional(amount, 0)
	},
	SiteInput,
	(row: SiteColumns) => ({
		...row,
		hosts: hostsIn(row.hosts),
		cdnHosts: hostsIn(row.cdn_hosts),
		previewHost: row.preview_host
	})
);

export const CLIENT_ROWS: Readonly<Record<string, RowSchema>> = {
	client,
	site,
	visit_source: v.object({
		site_id: id,
		key: v.pipe(text(100), v.regex(/^[\w-]{4,100}$/, 'This is no key.')),
		settings: json(VisitSettings),
		created_at: time
	}),
	visitor_state: v.object({ id, site_id: id, name: named(60), body: json(VisitorState) }),
	page: v.object({
		id,
		site_id: id,
		url: WebAddress,
		type: maybe(named(60)),
		traffic_share: maybe(share),
		key: v.optional(text(2000), ''),
		visits: maybe(amount),
		conversions: maybe(amount),
		revenue: maybe(amount),
		lastmod: maybe(text(60)),
		source: v.optional(text(20), 'pasted'),
		is_chosen: v.optional(flag, 0)
	}),
	page_skeleton: v.object({ page_id: id, fetched_at: time, pieces: json(list(text(500), 50_000), 5_000_000) }),
	worksheet_line: v.object({
		page_id: id,
		device: text(20),
		changed_at: time,
		state: text(20),
		note: text(4000),
		owner: text(200)
	}),
	field_reading: v.object({
		id,
		site_id: id,
		page_id: maybe(id),
		device: text(20),
		source: text(20),
		from_day: day,
		until_day: day,
		metrics: maybe(json(FieldReading.entries.metrics)),
		fetched_at: time,
		is_empty: v.optional(flag, 0),
		lcp: maybe(amount),
		figures: maybe(json(FieldReading.entries.metrics))
	}),
	component: together(
		{ id, kind: text(20), name: named(120), body: json(v.record(v.string(), v.unknown()), 5_000_000) },
		LibraryComponent,
		({ body, ...row }: { body: string }) => ({ ...(JSON.parse(body) as object), ...row })
	),
	site_component: v.object({
		site_id: id,
		component_id: id,
		version: v.optional(text(40), ''),
		tier: v.optional(text(60), '')
	}),
	third_party: v.object({
		client_id: id,
		host,
		owner: v.optional(text(200), ''),
		purpose: v.optional(text(200), ''),
		confirmed_at: maybe(time)
	})
};
