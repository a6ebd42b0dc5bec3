/** The fields of one group: short ones side by side, lists and groups across. */
import { Button } from '@mantine/core';
import { type ArrayFieldTitleProps, canExpand, type ObjectFieldTemplateProps, type RJSFSchema } from '@rjsf/utils';
import classes from './EveryField.module.css';

export function FieldsGroup({
  title,
  description,
  properties,
  schema,
  uiSchema,
  formData,
  disabled,
  onAddProperty,
}: ObjectFieldTemplateProps) {
  const said = (name: string) => (schema.properties?.[name] ?? {}) as RJSFSchema;
  return (
    <div className={classes.group}>
      {title && <b>{title}</b>}
      {description && <p>{description}</p>}
      <div className={classes.fields}>
        {properties
          .filter((one) => !one.hidden)
          .map((one) => (
            <div key={one.name} data-wide={isWide(said(one.name))}>
              {one.content}
            </div>
          ))}
      </div>
      {canExpand(schema, uiSchema, formData) && (
        <Button variant="default" disabled={disabled ?? false} onClick={onAddProperty}>
          One more
        </Button>
      )}
    </div>
  );
}

/** The name of a list, within its frame. */
export function ListTitle({ title }: ArrayFieldTitleProps) {
  return <span>{title}</span>;
}

/** Words that may be long, lists and groups have a row of their own. */
function isWide(schema: RJSFSchema): boolean {
  const isLong = schema.type === 'string' && !schema.enum && (schema.maxLength ?? 0) > 200;
  return isLong || schema.type === 'array' || schema.type === 'object' || !schema.type;
}
