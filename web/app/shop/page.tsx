import { expectPerson } from '../../server/accounts/page';
import { listUsers } from '../../server/jobSummaries';
import { listShopVersions, readShop } from '../../server/shop';
import { ShopStation } from '../../stations/shop/ShopStation';

export const dynamic = 'force-dynamic';

export default async function ShopPage() {
  const person = await expectPerson();
  const { version, shop } = await readShop();
  const versions = (await listShopVersions()).map((line) => ({ ...line, at: line.at.toISOString() }));
  return <ShopStation key={version} person={person} version={version} shop={shop} versions={versions} users={await listUsers()} />;
}
