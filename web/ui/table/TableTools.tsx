import { ActionIcon, Menu, TextInput } from '@mantine/core';
import { IconColumns3, IconCopy } from '@tabler/icons-react';
import type { Column } from './columns';
import styles from './DataTable.module.css';

/** Filter, columns to choose, and the copy of a table. count: words on how many of how many are found; null for all. */
export function TableTools<R>({
  columns,
  hidden,
  onHide,
  words,
  onWords,
  field = { label: 'Filter the table', placeholder: 'filter' },
  count,
  onCopy,
}: {
  columns: readonly Column<R>[];
  hidden: readonly string[];
  onHide: (hidden: string[]) => void;
  words: string;
  onWords: (words: string) => void;
  field?: { label: string; placeholder: string } | undefined;
  count: string | null;
  onCopy: () => void;
}) {
  return (
    <div className={styles.tools}>
      {count && (
        <span className={styles.count} role="status">
          {count}
        </span>
      )}
      <TextInput
        variant="unstyled"
        className={styles.filter ?? ''}
        aria-label={field.label}
        placeholder={field.placeholder}
        value={words}
        onChange={(event) => onWords(event.currentTarget.value)}
        onKeyDown={(event) => {
          if (event.key !== 'Escape') return;
          event.stopPropagation();
          onWords('');
        }}
      />
      <Menu closeOnItemClick={false} position="bottom-end" shadow="md">
        <Menu.Target>
          <ActionIcon variant="subtle" color="gray" aria-label="Choose columns" title="Choose columns">
            <IconColumns3 size={17} />
          </ActionIcon>
        </Menu.Target>
        <Menu.Dropdown>
          {columns
            .filter(({ head }) => head !== '')
            .map(({ id, head }) => {
              const isShown = !hidden.includes(id);
              return (
                <Menu.CheckboxItem
                  key={id}
                  checked={isShown}
                  onChange={() => onHide(isShown ? [...hidden, id] : hidden.filter((one) => one !== id))}
                >
                  {head}
                </Menu.CheckboxItem>
              );
            })}
        </Menu.Dropdown>
      </Menu>
      <ActionIcon variant="subtle" color="gray" aria-label="Copy the table" title="Copy as a spreadsheet takes it" onClick={onCopy}>
        <IconCopy size={17} />
      </ActionIcon>
    </div>
  );
}
