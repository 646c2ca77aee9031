import Button from '@mui/material/Button';
import Collapse from '@mui/material/Collapse';
import Stack from '@mui/material/Stack';
import { useState } from 'react';
import { useStyles } from '../api/queries';
import { useDesk } from './Desk';
import { valueAt } from './draft';
import { Choice, Count, NumberEntry, Switch, TextEntry, YesNo } from './fields';
import { ListField } from './ListField';
import { within, type RingPath } from './ringPaths';

/** The part of a JSON Schema that a style's parameters use. */
export interface FieldSchema {
  title?: string;
  description?: string;
  type?: string;
  enum?: (string | number)[];
  const?: string;
  default?: unknown;
  minimum?: number;
  maximum?: number;
  unit?: string;
  /** Seldom changed: behind one tap. */
  rare?: boolean;
  /** Said by the head, where there is one. */
  bare?: boolean;
  /** Usual values of a text, to be taken at a tap. */
  presets?: string[];
  /** A measure that may be left out. */
  anyOf?: FieldSchema[];
  /** What a list holds. */
  items?: FieldSchema;
  $ref?: string;
  properties?: Record<string, FieldSchema>;
  $defs?: Record<string, FieldSchema>;
}

interface Props {
  /** Where in the ring file the object stands. */
  path: RingPath;
  schema: FieldSchema;
  definitions?: Record<string, FieldSchema> | undefined;
}

/** A form for a style's parameters, made from their schema: a new style needs no form of its own. */
export function StyleForm({ path, schema, definitions = schema.$defs ?? {} }: Props) {
  const { draft, problems } = useDesk();
  const head = useStyles().data?.find((s) => s.kind === 'head' && s.style === valueAt(draft, 'head.style'));
  const headed = head !== undefined && !head.usual;
  const [wanted, setWanted] = useState(false);
  const fields = Object.entries(schema.properties ?? {})
    // The style itself, and what has one choice only, is nothing to ask.
    .filter(([name, field]) => name !== 'style' && field.const === undefined && !(field.bare && headed));
  const drawn = (rare: boolean) =>
    fields
      .filter(([, field]) => (field.rare ?? false) === rare)
      .map(([name, field]) => (
        <Field key={name} path={within(path, name)} name={name} field={field} definitions={definitions} />
      ));
  const rare = fields.filter(([, field]) => field.rare);
  // What is wrong is never hidden.
  const open = wanted || rare.some(([name]) => problems.some((p) => p.field.startsWith(`${path}.${name}`)));
  return (
    <Stack spacing={2.5}>
      {drawn(false)}
      {rare.length > 0 && (
        <>
          <Button
            variant="text"
            onClick={() => setWanted(!open)}
            aria-expanded={open}
            sx={{ alignSelf: 'start', px: 0 }}
          >
            {open
              ? 'Fewer settings'
              : `More: ${rare
                  .map(([name, field]) => (field.title ?? name).toLowerCase())
                  .slice(0, 3)
                  .join(', ')} …`}
          </Button>
          <Collapse in={open} unmountOnExit>
            <Stack spacing={2.5}>{drawn(true)}</Stack>
          </Collapse>
        </>
      )}
    </Stack>
  );
}

interface FieldProps {
  path: RingPath;
  name: string;
  field: FieldSchema;
  definitions: Record<string, FieldSchema>;
}

function Field({ path, name, field, definitions }: FieldProps) {
  const label = field.title ?? name;
  const help = field.description;
  const shared = { path, label, help };
  const list = [field, ...(field.anyOf ?? [])].find((kind) => kind.type === 'array');
  if (list?.items) {
    const other = field.anyOf?.find((kind) => kind.const !== undefined)?.const;
    return <ListField {...shared} items={list.items} usual={field.default} other={other} definitions={definitions} />;
  }
  const refer = (ref: string | undefined) => definitions[ref?.split('/').at(-1) ?? ''];
  const optional = field.anyOf?.map((kind) => refer(kind.$ref)).find(Boolean);
  if (optional)
    return (
      <Switch {...shared}>
        <StyleForm path={path} schema={optional} definitions={definitions} />
      </Switch>
    );
  const inner = refer(field.$ref);
  if (inner) return <StyleForm path={path} schema={inner} definitions={definitions} />;
  if (field.enum)
    return <Choice {...shared} choices={field.enum} usual={field.default as string | number | undefined} />;
  if (field.type === 'integer')
    return (
      <Count
        {...shared}
        least={field.minimum ?? 0}
        most={field.maximum ?? 99}
        usual={field.default as number | undefined}
      />
    );
  if (field.type === 'boolean') return <YesNo {...shared} usual={field.default === true} />;
  const one = field.anyOf?.find((kind) => kind.enum ?? kind.const);
  const choices = one?.enum ?? (one?.const === undefined ? undefined : [one.const]);
  const measured = field.anyOf?.some((kind) => kind.type === 'number' || kind.type === 'integer');
  if (choices && measured)
    return (
      <>
        <Choice {...shared} choices={choices} usual={field.default as string | number | undefined} />
        <NumberEntry
          {...shared}
          label={`${label}, as a figure`}
          help={undefined}
          unit={field.unit}
          words={choices}
          optional
        />
      </>
    );
  if (choices) return <Choice {...shared} choices={choices} />;
  if (measured) return <NumberEntry {...shared} unit={field.unit} optional />;
  if (field.type === 'number')
    return <NumberEntry {...shared} unit={field.unit} usual={field.default as number | undefined} />;
  return <TextEntry {...shared} usual={field.default as string | undefined} presets={field.presets} />;
}
