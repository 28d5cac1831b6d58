import { BoardStation } from '../../../../../stations/board/BoardStation';

export default function BoardPage() {
  return <BoardStation />;
}
