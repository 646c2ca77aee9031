/** The colours of a metal: its edge, its body and its shine. They stand for metal and nothing else. */
export interface MetalColours {
  edge: string;
  body: string;
  shine: string;
}

const COPPER: MetalColours = { edge: '#84431f', body: '#b8683c', shine: '#e2a27c' };

const METALS: Record<string, MetalColours> = {
  copper: COPPER,
  'plated-copper': { edge: '#6f7376', body: '#a9aeb1', shine: '#e6e9ea' },
  brass: { edge: '#7a6118', body: '#bb9a3a', shine: '#ead99a' },
  bronze: { edge: '#6b4a1e', body: '#a57a3c', shine: '#d9b884' },
  sterling: { edge: '#767b80', body: '#b4babf', shine: '#f0f3f5' },
  'fine-silver': { edge: '#83888c', body: '#c3c9cd', shine: '#f6f8f9' },
  'gold-filled': { edge: '#87651b', body: '#cfa544', shine: '#f4dfa6' },
  stainless: { edge: '#5d666c', body: '#8d979e', shine: '#cbd3d8' },
  aluminium: { edge: '#7e8589', body: '#b9c0c4', shine: '#e9edef' },
};

export const metalColours = (code: string): MetalColours => METALS[code] ?? COPPER;
