'use client';

import { Modal } from '@mantine/core';
import { useEffect, useState } from 'react';
import { toUrl } from '../../client/base';
import { toCount, type StripLayout } from 'wattograph-core';
import { useJob } from '../../client/jobContext';
import { request } from '../../client/request';
import type { PhotoLine } from '../../server/photos';
import styles from './Strip.module.css';

/** Photos at their places on the strip; a press shows them. */
export function PhotoMarks({ loomId, layout }: { loomId: string; layout: StripLayout }) {
  const jobId = useJob(({ id }) => id);
  const [photos, setPhotos] = useState<PhotoLine[]>([]);
  const [openId, setOpen] = useState<string | null>(null);
  useEffect(() => {
    let isOver = false;
    request<PhotoLine[]>(`/api/jobs/${jobId}/photos`).then(
      (list) => {
        if (!isOver) setPhotos(list);
      },
      () => undefined,
    );
    return () => {
      isOver = true;
    };
  }, [jobId]);
  const at = new Map<string, PhotoLine[]>();
  for (const photo of photos) if (photo.loomId === loomId) at.set(photo.nodeId, [...(at.get(photo.nodeId) ?? []), photo]);
  const places = [
    ...layout.nodes.map(({ nodeId, x, top, name }) => ({ nodeId, x: x + 14, y: top - 4, name })),
    ...layout.ends.map(({ nodeId, x, top, bottom, name }) => ({ nodeId, x: x - 14, y: (top + bottom) / 2, name })),
  ].filter(({ nodeId }) => at.has(nodeId));
  const open = places.find(({ nodeId }) => nodeId === openId);
  return (
    <>
      {places.map(({ nodeId, x, y, name }) => (
        <g
          key={nodeId}
          className={styles.camera}
          role="button"
          tabIndex={0}
          aria-label={`${toCount(at.get(nodeId)!.length, 'photo')} at ${name}`}
          onPointerDown={(event) => event.stopPropagation()}
          onClick={() => setOpen(nodeId)}
          onKeyDown={(event) => {
            if (event.key === 'Enter') setOpen(nodeId);
          }}
        >
          <rect x={x - 9} y={y - 7} width={18} height={13} fill="var(--brass)" />
          <circle cx={x} cy={y} r={3.5} fill="var(--paper)" />
        </g>
      ))}
      {open && (
        <Modal opened onClose={() => setOpen(null)} title={`At ${open.name}`} size="xl">
          {at.get(open.nodeId)!.map((photo) => (
            <figure key={photo.id} style={{ margin: '0 0 16px' }}>
              {/* eslint-disable-next-line @next/next/no-img-element */}
              <img src={toUrl(`/api/photos/${photo.id}`)} alt={`${open.name}, by ${photo.author}`} style={{ maxWidth: '100%' }} />
              <figcaption className="faint">
                {photo.author}, {new Date(photo.takenAt).toISOString().slice(0, 10)} {photo.caption}
              </figcaption>
            </figure>
          ))}
        </Modal>
      )}
    </>
  );
}
