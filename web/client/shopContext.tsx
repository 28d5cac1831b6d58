'use client';

import { createContext, useContext } from 'react';
import type { Shop } from 'wattograph-core';

const Context = createContext<Shop | null>(null);

/** Gives everything below it the shop that the job is planned with. */
export const ShopProvider = Context.Provider;

/** Parts, standards and people of the shop, as they were when this page was opened. */
export function useShop(): Shop {
  const shop = useContext(Context);
  if (!shop) throw new Error('useShop: expected a ShopProvider above');
  return shop;
}
