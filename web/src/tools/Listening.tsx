import { useEffect } from 'react';
import { useTell } from '../app/Notices';
import { usePreferences } from '../preferences/Preferences';
import { land, written, type Said } from './landing';

/** Hears what the tools say, where somebody has switched that on, and puts it where the focus is. */
export function Listening() {
  const [{ tools, units }] = usePreferences();
  const tell = useTell();
  useEffect(() => {
    if (!tools) return undefined;
    const readings = new EventSource('/api/devices/readings');
    readings.onmessage = (message: MessageEvent<string>) => {
      const said = JSON.parse(message.data) as Said;
      const { number, unit } = written(said, units);
      const landed = land(said, units);
      tell({ text: `${said.device}: ${number} ${unit}${landed ? '' : '. Touch the field first that it is for.'}` });
    };
    return () => readings.close();
  }, [tools, units, tell]);
  return null;
}
