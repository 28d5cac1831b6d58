import { BundleStation } from '../../../../../stations/bundle/BundleStation';

export default function BundlePage() {
  return <BundleStation />;
}
