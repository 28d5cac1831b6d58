import { TextInput } from '@mantine/core';
import { useForm, type UseFormReturnType } from '@mantine/form';
import type { Job } from 'wattograph-core';

export interface NewLoom {
  name: string;
  prefix: string;
}

/** Name and letters of a loom that is added to a job. */
export function useLoomForm({ looms }: Pick<Job, 'looms'>) {
  return useForm<NewLoom>({
    initialValues: { name: '', prefix: '' },
    validateInputOnChange: ['prefix'],
    validate: {
      name: (name) => (name.trim() ? null : 'expected a name'),
      prefix: (prefix) => {
        if (Object.values(looms).some((loom) => loom.prefix === prefix.trim())) return 'another loom has these letters';
        return isPrefix(prefix) ? null : 'expected one to three capitals';
      },
    },
  });
}

export const isPrefix = (words: string): boolean => /^[A-Z]{1,3}$/.test(words.trim());

export const LoomNameField = ({ form, label }: { form: UseFormReturnType<NewLoom>; label: string }) => (
  <TextInput label={label} data-autofocus maxLength={60} {...form.getInputProps('name')} />
);

export const LoomPrefixField = ({ form }: { form: UseFormReturnType<NewLoom> }) => (
  <TextInput
    label="First letters of its wire numbers"
    description="one to three capitals of its own"
    {...form.getInputProps('prefix')}
    onChange={(event) => form.setFieldValue('prefix', event.currentTarget.value.toUpperCase())}
  />
);
