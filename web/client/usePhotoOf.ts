import { useEffect, useState } from 'react';
import { hearNews } from './live';
import { request } from './request';

/** Is there a picture of this id among those of a job? Asked for when the card opens and when the server tells of new ones. id null: of nothing. */
export function usePhotoOf(jobId: string, id: string | null): boolean {
  const [ids, setIds] = useState<readonly string[]>([]);
  useEffect(() => {
    if (id === null) return undefined;
    let isOver = false;
    const ask = () =>
      request<{ id: string }[] | null>(`/api/jobs/${jobId}/photos`).then(
        (photos) => {
          if (!isOver && Array.isArray(photos)) setIds(photos.map((photo) => photo.id));
        },
        // without a network the picture is not shown
        () => undefined,
      );
    void ask();
    const end = hearNews((news) => {
      if (news.topic === 'photos' && news.id === jobId) void ask();
    });
    return () => {
      isOver = true;
      end();
    };
  }, [jobId, id]);
  return id !== null && ids.includes(id);
}
