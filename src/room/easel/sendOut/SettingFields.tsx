'use client';
import { InputNumber, Select, Switch } from 'antd';
import type { Setting, Settings } from '@/core/formats/exports/settings';
import styles from './sendOut.module.css';

type Value = string | number | boolean;

/** The settings of a kind of file, each with its field. */
export function SettingFields({
  settings,
  values,
  onChange,
}: {
  settings: Settings;
  values: Readonly<Record<string, Value>>;
  onChange: (name: string, value: Value) => void;
}) {
  return (
    <div className={styles.fields}>
      {Object.entries(settings).map(([name, setting]) => (
        <label key={name}>
          <span>{setting.label}</span>
          <Field setting={setting} value={values[name]} onChange={(value) => onChange(name, value)} />
        </label>
      ))}
    </div>
  );
}

function Field({ setting, value, onChange }: { setting: Setting; value: Value; onChange: (value: Value) => void }) {
  if (setting.kind === 'switch')
    return <Switch size="small" aria-label={setting.label} checked={value === true} onChange={onChange} />;
  if (setting.kind === 'choice')
    return (
      <Select
        size="small"
        aria-label={setting.label}
        value={String(value)}
        onChange={onChange}
        options={Object.entries(setting.choices).map(([id, label]) => ({ value: id, label }))}
      />
    );
  return (
    <InputNumber
      size="small"
      aria-label={setting.label}
      min={setting.least}
      max={setting.most}
      step={setting.step}
      value={Number(value)}
      suffix={setting.unit}
      onChange={(next) => next !== null && onChange(next)}
    />
  );
}
