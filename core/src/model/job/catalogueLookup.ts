import type { ConnectorFamily } from '../shop/family';

export type FamilyLookup = (familyId: string) => ConnectorFamily | undefined;

/** What a document may name without holding it: families, shop standards and conductor sizes of the catalogue. */
export interface CatalogueLookup {
  family: FamilyLookup;
  deviceTemplateIds: readonly string[];
  standardIds: readonly string[];
  cableIds: readonly string[];
  sizes: Readonly<Record<string, readonly string[]>>;
}
