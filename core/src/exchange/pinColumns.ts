import type { TSchema } from '@sinclair/typebox';
import { PinNeedSchema, PinOfferSchema } from '../model';

/** Fields of what a pin needs and of what it gives, in the order of their schemas; a list of pins has a column for each. */
export const NEED_FIELDS: Readonly<Record<string, TSchema>> = PinNeedSchema.properties;
export const OFFER_FIELDS: Readonly<Record<string, TSchema>> = PinOfferSchema.properties;

/** Columns of a list of pins: the pin, then every field once. */
export const PIN_COLUMNS: readonly string[] = ['pin', ...new Set([...Object.keys(NEED_FIELDS), ...Object.keys(OFFER_FIELDS)])];
