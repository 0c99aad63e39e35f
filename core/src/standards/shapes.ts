/** Supply shapes and their faces, width x height x depth in millimetres. */
export type Shape = 'ATX' | 'SFX' | 'SFX-L' | 'TFX' | 'Flex' | 'CFX' | 'LFX';
export const shapes = ['ATX', 'SFX', 'SFX-L', 'TFX', 'Flex', 'CFX', 'LFX'] as const satisfies readonly Shape[];

/** Room for plugs and bends behind modular sockets (bench practice, 30 to 50 mm). */
export const modularBendMillimetres = 40;
