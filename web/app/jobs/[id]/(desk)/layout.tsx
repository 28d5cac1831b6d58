import type { ReactNode } from 'react';
import { Desk } from '../../../../ui/Desk';

export default async function DeskLayout({ children, params }: { children: ReactNode; params: Promise<{ id: string }> }) {
  return <Desk jobId={(await params).id}>{children}</Desk>;
}
