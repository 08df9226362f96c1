/** Forms of a site's pages. */
import * as v from 'valibot';
import { Text, Texts } from '../../http/fields';

export const PasteFields = v.object({ addresses: Text });
export const GatherFields = v.object({ what: Text, url: Text });
export const ChooseFields = v.object({ page: Texts, chosen: Text });
export const TypeFields = v.object({ page: Texts, type: Text });
export const AcceptFields = v.object({ proposal: Text, name: Text });
export const SettlingFields = v.object({ minutes: Text });
