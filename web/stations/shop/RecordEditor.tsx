'use client';

import { Button, Checkbox, Fieldset, Group, NumberInput, Select, TextInput } from '@mantine/core';
import { useState } from 'react';
import {
  describeRecord,
  listRecordFields,
  RECORD_SCHEMAS,
  type ConnectorFamily,
  type RecordField,
  type Shop,
  type ShopRecord,
  type ShopTable,
} from 'wattograph-core';
import { FamilyFace } from './FamilyFace';
import styles from './Shop.module.css';

/** Fields that have an editor of their own; a wire lies in the table of its kind. */
const ELSEWHERE: Partial<Record<ShopTable, readonly string[]>> = {
  wires: ['table'],
  families: ['cavityNames', 'cavitySize', 'mateId'],
};

/** One record of a shop: every figure and word of it, with what it works with in this shop. */
export function RecordEditor({
  shop,
  table,
  record,
  onChange,
  onCopy,
  onRemove,
}: {
  shop: Shop;
  table: ShopTable;
  record: ShopRecord;
  onChange: (value: unknown) => void;
  onCopy: (() => void) | null;
  onRemove: () => void;
}) {
  const value = record.value as Record<string, unknown>;
  const fits = describeRecord(shop, table, record);
  return (
    <div>
      <h2>{record.name}</h2>
      <p className={styles.fits}>
        <code>{record.id}</code>
        {fits && ` · ${fits}`}
      </p>
      <Group gap="xs" mb="sm">
        {onCopy && (
          <Button variant="default" size="xs" onClick={onCopy}>
            Make another from it
          </Button>
        )}
        <Button variant="default" size="xs" onClick={onRemove}>
          Take it out
        </Button>
      </Group>
      {table === 'families' && <FamilyFace shop={shop} family={value as ConnectorFamily} onChange={onChange} />}
      {table === 'families' && (
        <Select
          label="mates with"
          searchable
          clearable
          mb="sm"
          placeholder="another of its own"
          data={Object.entries(shop.families).flatMap(([id, { name }]) => (id === record.id ? [] : [{ value: id, label: name }]))}
          value={(value as ConnectorFamily).mateId}
          onChange={(mateId) => onChange({ ...value, mateId })}
        />
      )}
      <Fields
        fields={listRecordFields(RECORD_SCHEMAS[table], value).filter(({ key }) => !ELSEWHERE[table]?.includes(key))}
        value={value}
        onChange={(key, next) => onChange({ ...value, [key]: next })}
      />
    </div>
  );
}

function Fields({
  fields,
  value,
  onChange,
}: {
  fields: readonly RecordField[];
  value: Record<string, unknown>;
  onChange: (key: string, next: unknown) => void;
}) {
  return (
    <div className={styles.fields}>
      {fields.map((field) =>
        field.kind === 'group' ? (
          <Fieldset key={field.key} legend={field.words} className={styles.group}>
            {field.hint && <p className="faint">{field.hint}</p>}
            <Fields
              fields={field.fields}
              value={value[field.key] as Record<string, unknown>}
              onChange={(key, next) => onChange(field.key, { ...(value[field.key] as Record<string, unknown>), [key]: next })}
            />
          </Fieldset>
        ) : (
          <Field key={field.key} field={field} value={value[field.key]} onChange={(next) => onChange(field.key, next)} />
        ),
      )}
    </div>
  );
}

/** A field that keeps what is typed until it is left or Enter is pressed: an edit is one step of undo. */
function Field({ field, value, onChange }: { field: RecordField; value: unknown; onChange: (next: unknown) => void }) {
  const { words: label, hint: description, kind, isOptional } = field;
  switch (kind) {
    case 'number':
      return <Figure field={field} value={value as number | null} onChange={onChange} />;
    case 'yes-no':
      return (
        <Checkbox
          label={label}
          description={description}
          checked={value === true}
          onChange={(event) => onChange(event.currentTarget.checked)}
        />
      );
    case 'choice':
      return (
        <Select
          label={label}
          description={description}
          data={field.choices}
          value={value as string | null}
          allowDeselect={isOptional}
          placeholder={isOptional ? 'not stated' : undefined}
          onChange={onChange}
        />
      );
    default:
      return <Typed field={field} value={value} onChange={onChange} />;
  }
}

function Figure({ field, value, onChange }: { field: RecordField; value: number | null; onChange: (next: unknown) => void }) {
  const [typed, setTyped] = useState<number | string>(value ?? '');
  const keep = () => {
    if (typed === '' && field.isOptional) onChange(null);
    else if (typeof typed === 'number' && typed !== value) onChange(typed);
    else setTyped(value ?? '');
  };
  return (
    <NumberInput
      label={field.words}
      description={field.hint}
      placeholder={field.isOptional ? 'not stated' : undefined}
      allowDecimal={!field.isInteger}
      hideControls
      value={typed}
      onChange={setTyped}
      onBlur={keep}
      onKeyDown={(event) => event.key === 'Enter' && keep()}
    />
  );
}

function Typed({ field, value, onChange }: { field: RecordField; value: unknown; onChange: (next: unknown) => void }) {
  const isList = field.kind === 'list';
  const toText = () => (isList ? (value as unknown[]).join(', ') : ((value as string | null) ?? ''));
  const [typed, setTyped] = useState(toText);
  const keep = () => {
    if (typed === toText()) return;
    if (isList) onChange(toList(typed, field.isInteger));
    else onChange(typed === '' && field.isOptional ? null : typed);
  };
  return (
    <TextInput
      label={field.words}
      description={field.hint}
      value={typed}
      onChange={(event) => setTyped(event.currentTarget.value)}
      onBlur={keep}
      onKeyDown={(event) => event.key === 'Enter' && keep()}
    />
  );
}

function toList(text: string, isInteger: boolean): unknown[] {
  const words = text.split(/[,;]/).flatMap((one) => (one.trim() === '' ? [] : [one.trim()]));
  return isInteger ? words.map(Number) : words;
}
