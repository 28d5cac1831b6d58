import { listUsers } from '../../server/jobSummaries';
import { listShopVersions, readShop } from '../../server/shop';
import { ShopStation } from '../../stations/shop/ShopStation';

export const dynamic = 'force-dynamic';

export default async function ShopPage() {
  const { version, shop } = await readShop();
  const versions = (await listShopVersions()).map((line) => ({ ...line, at: line.at.toISOString() }));
  return <ShopStation key={version} version={version} shop={shop} versions={versions} users={await listUsers()} />;
}
