import Stack from '@mui/material/Stack';
import { Choice, Count, NumberEntry, TextEntry } from './fields';

/** The part of a JSON Schema that a style's parameters use. */
export interface FieldSchema {
  title?: string;
  description?: string;
  type?: string;
  enum?: string[];
  const?: string;
  default?: unknown;
  minimum?: number;
  maximum?: number;
  unit?: string;
  /** Usual values of a text, to be taken at a tap. */
  presets?: string[];
  /** A measure that may be left out. */
  anyOf?: FieldSchema[];
  $ref?: string;
  properties?: Record<string, FieldSchema>;
  $defs?: Record<string, FieldSchema>;
}

interface Props {
  /** Where in the ring file the object stands. */
  path: string;
  schema: FieldSchema;
  definitions?: Record<string, FieldSchema> | undefined;
}

/** A form for a style's parameters, made from their schema: a new style needs no form of its own. */
export function StyleForm({ path, schema, definitions = schema.$defs ?? {} }: Props) {
  return (
    <Stack spacing={2.5}>
      {Object.entries(schema.properties ?? {})
        // The style itself, and what has one choice only, is nothing to ask.
        .filter(([name, field]) => name !== 'style' && field.const === undefined)
        .map(([name, field]) => (
          <Field key={name} path={`${path}.${name}`} name={name} field={field} definitions={definitions} />
        ))}
    </Stack>
  );
}

function Field({
  path,
  name,
  field,
  definitions,
}: {
  path: string;
  name: string;
  field: FieldSchema;
  definitions: Record<string, FieldSchema>;
}) {
  const label = field.title ?? name;
  const help = field.description;
  // What is a form of its own and may be left out (worked strip) is set in the ring file.
  if (field.anyOf?.some((kind) => kind.$ref)) return null;
  const inner = field.$ref ? definitions[field.$ref.split('/').at(-1) ?? ''] : undefined;
  if (inner) return <StyleForm path={path} schema={inner} definitions={definitions} />;
  if (field.enum)
    return (
      <Choice path={path} label={label} help={help} choices={field.enum} usual={field.default as string | undefined} />
    );
  if (field.type === 'integer')
    return (
      <Count
        path={path}
        label={label}
        help={help}
        least={field.minimum ?? 0}
        most={field.maximum ?? 99}
        usual={field.default as number | undefined}
      />
    );
  const choices = field.anyOf?.find((kind) => kind.enum)?.enum;
  if (choices) return <Choice path={path} label={label} help={help} choices={choices} />;
  if (field.anyOf?.some((kind) => kind.type === 'number' || kind.type === 'integer'))
    return <NumberEntry path={path} label={label} help={help} unit={field.unit} optional />;
  if (field.type === 'number')
    return (
      <NumberEntry
        path={path}
        label={label}
        help={help}
        unit={field.unit}
        usual={field.default as number | undefined}
      />
    );
  return (
    <TextEntry
      path={path}
      label={label}
      help={help}
      usual={field.default as string | undefined}
      presets={field.presets}
    />
  );
}
