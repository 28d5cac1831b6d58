import { CircuitsStation } from '../../../../../stations/circuits/CircuitsStation';

export default function CircuitsPage() {
  return <CircuitsStation />;
}
