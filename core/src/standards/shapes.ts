/** Supply shapes and their faces, width x height x depth in millimetres. */
export type Shape = 'ATX' | 'SFX' | 'SFX-L' | 'TFX' | 'Flex' | 'CFX' | 'LFX';
export const shapes = ['ATX', 'SFX', 'SFX-L', 'TFX', 'Flex', 'CFX', 'LFX'] as const satisfies readonly Shape[];

export const shapeSize: Record<
  Shape,
  { readonly widthMillimetres: number; readonly heightMillimetres: number; readonly depthMillimetres: number }
> = {
  ATX: { widthMillimetres: 150, heightMillimetres: 86, depthMillimetres: 140 },
  SFX: { widthMillimetres: 125, heightMillimetres: 63.5, depthMillimetres: 100 },
  'SFX-L': { widthMillimetres: 125, heightMillimetres: 63.5, depthMillimetres: 130 },
  TFX: { widthMillimetres: 85, heightMillimetres: 65, depthMillimetres: 175 },
  Flex: { widthMillimetres: 81.5, heightMillimetres: 40.5, depthMillimetres: 150 },
  CFX: { widthMillimetres: 101.6, heightMillimetres: 86, depthMillimetres: 96 },
  LFX: { widthMillimetres: 62, heightMillimetres: 72, depthMillimetres: 210 },
};

/** Room for plugs and bends behind modular sockets (bench practice, 30 to 50 mm). */
export const modularBendMillimetres = 40;
