/** The kept form library in the house's look: of its widgets only those that the format's keys need. */
import { withTheme } from '@rjsf/core';
import ArrayFieldItemTemplate from '@rjsf/mantine/lib/templates/ArrayFieldItemTemplate.js';
import ArrayFieldTemplate from '@rjsf/mantine/lib/templates/ArrayFieldTemplate.js';
import BaseInputTemplate from '@rjsf/mantine/lib/templates/BaseInputTemplate.js';
import buttonTemplates from '@rjsf/mantine/lib/templates/ButtonTemplates/index.js';
import DescriptionField from '@rjsf/mantine/lib/templates/DescriptionField.js';
import FieldErrorTemplate from '@rjsf/mantine/lib/templates/FieldErrorTemplate.js';
import FieldTemplate from '@rjsf/mantine/lib/templates/FieldTemplate.js';
import MultiSchemaFieldTemplate from '@rjsf/mantine/lib/templates/MultiSchemaFieldTemplate.js';
import WrapIfAdditionalTemplate from '@rjsf/mantine/lib/templates/WrapIfAdditionalTemplate.js';
import CheckboxWidget from '@rjsf/mantine/lib/widgets/CheckboxWidget.js';
import SelectWidget from '@rjsf/mantine/lib/widgets/SelectWidget.js';
import { FieldsGroup, ListTitle } from './FieldsGroup';

export const FieldsForm = withTheme({
  widgets: { CheckboxWidget, SelectWidget },
  templates: {
    ArrayFieldItemTemplate,
    ArrayFieldTemplate,
    ArrayFieldTitleTemplate: ListTitle,
    BaseInputTemplate,
    ButtonTemplates: buttonTemplates(),
    DescriptionFieldTemplate: DescriptionField,
    FieldErrorTemplate,
    FieldTemplate,
    MultiSchemaFieldTemplate,
    ObjectFieldTemplate: FieldsGroup,
    WrapIfAdditionalTemplate,
  },
});
