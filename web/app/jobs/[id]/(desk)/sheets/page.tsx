import { SheetsStation } from '../../../../../stations/sheets/SheetsStation';

export default function SheetsPage() {
  return <SheetsStation />;
}
