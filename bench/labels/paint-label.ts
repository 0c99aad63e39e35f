// Draws a made-up label as a camera would see it. It runs in a browser, so it uses nothing from outside itself.
import type { MadeUpLabel } from './made-up-label.ts';

/** The label as a PNG, in a data address. @param width of the picture, in pixels; its height follows from the label */
export function paintLabel(label: MadeUpLabel, width = 1400): string {
  let state = label.seed * 7919 + 13;
  const random = () => {
    state = (state + 0x6d2b79f5) | 0;
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4294967296;
  };
  const ink = label.dark ? '#e8e6df' : '#23221f';
  const ground = label.dark ? '#1d2024' : '#e9e7df';
  const flat = document.createElement('canvas');
  flat.width = 1120;
  flat.height = 900;
  const pen = flat.getContext('2d')!;
  pen.fillStyle = ground;
  pen.fillRect(0, 0, flat.width, flat.height);
  pen.fillStyle = ink;
  pen.strokeStyle = ink;
  pen.textBaseline = 'middle';
  const letters = (size: number, bold = label.bold) => `${bold ? 'bold ' : ''}${size}px '${label.font}'`;
  const left = 40;
  const right = flat.width - 40;
  let y = 44;
  label.head.forEach((line, index) => {
    pen.font = letters(index === 0 ? label.size * 1.7 : label.size, index === 0 || label.bold);
    pen.textAlign = 'left';
    pen.fillText(line, left, y);
    y += index === 0 ? 52 : label.size * 1.6;
  });
  y += 10;

  const unit = (value: number, mark: string) => `${value}${label.spaced ? ' ' : ''}${mark}`;
  const cell = (text: string, x0: number, x1: number, y0: number, high: number, size = label.size) => {
    pen.font = letters(size);
    let fitted = size;
    while (pen.measureText(text).width > x1 - x0 - 8 && fitted > 12) {
      fitted -= 1;
      pen.font = letters(fitted);
    }
    pen.textAlign = 'center';
    pen.fillText(text, (x0 + x1) / 2, y0 + high / 2);
    if (label.ruled) pen.strokeRect(x0, y0, x1 - x0, high);
  };
  pen.lineWidth = 2;
  const high = label.size * 2.1;
  const shared = (name: string) => label.combined.find(({ labels }) => labels.includes(name));
  /** Outputs with the limit that they share, side by side. */
  const groups: { readonly names: string[]; readonly watts: number | null }[] = [];
  for (const rail of label.rails) {
    const limit = shared(rail.label);
    const last = groups.at(-1);
    if (limit !== undefined && last?.names.some((name) => limit.labels.includes(name)) === true)
      last.names.push(rail.label);
    else
      groups.push({
        names: [rail.label],
        watts:
          limit?.watts ??
          (rail.rail === '+12' ? null : Math.round(rail.amps * (rail.rail === '-12' ? 12 : 5) * 10) / 10),
      });
  }

  if (label.layout === 'columns') {
    const first = 200;
    const wide = (right - left - first) / label.rails.length;
    cell(label.words.output, left, left + first, y, high);
    label.rails.forEach((rail, index) => {
      cell(rail.label, left + first + index * wide, left + first + (index + 1) * wide, y, high);
    });
    y += high;
    cell(label.words.current, left, left + first, y, high);
    label.rails.forEach((rail, index) => {
      cell(unit(rail.amps, 'A'), left + first + index * wide, left + first + (index + 1) * wide, y, high);
    });
    y += high;
    if (label.combined.length > 0) {
      cell(label.words.power, left, left + first, y, high);
      let at = 0;
      for (const group of groups) {
        const x0 = left + first + at * wide;
        at += group.names.length;
        cell(group.watts === null ? '' : unit(group.watts, 'W'), x0, left + first + at * wide, y, high);
      }
      y += high;
    }
    cell(label.words.total, left, left + first, y, high);
    cell(unit(label.watts, 'W'), left + first, right, y, high);
    y += high + 26;
  } else if (label.layout === 'rows') {
    const x = [left, left + 330, left + 600, right - 120];
    cell(label.words.output, x[0]!, x[1]!, y, high);
    cell(label.words.current, x[1]!, x[2]!, y, high);
    cell(label.words.power, x[2]!, x[3]!, y, high);
    y += high;
    const low = label.size * 1.7;
    let at = y;
    for (const rail of label.rails) {
      cell(rail.label, x[0]!, x[1]!, at, low);
      cell(unit(rail.amps, 'A'), x[1]!, x[2]!, at, low);
      at += low;
    }
    for (const group of groups) {
      const tall = group.names.length * low;
      cell(group.watts === null ? '' : unit(group.watts, 'W'), x[2]!, x[3]!, y, tall);
      y += tall;
    }
    cell(`${label.words.total}  ${unit(label.watts, 'W')}`, x[0]!, x[3]!, y, high);
    y += high + 26;
  } else {
    pen.textAlign = 'left';
    label.rails.forEach((rail, index) => {
      pen.font = letters(label.size);
      const column = index % 2;
      pen.fillText(`${rail.label}${label.sign || ' '}${unit(rail.amps, 'A')}`, left + column * 500, y);
      if (column === 1 || index === label.rails.length - 1) y += label.size * 1.7;
    });
    for (const limit of label.combined) {
      pen.fillText(`${limit.labels.join(' & ')} max ${unit(limit.watts, 'W')}`, left, y);
      y += label.size * 1.7;
    }
    pen.fillText(`${label.words.total}: ${unit(label.watts, 'W')}`, left, y);
    y += label.size * 1.7 + 26;
  }
  pen.textAlign = 'left';
  for (const line of label.foot) {
    pen.font = letters(label.size * 0.8, false);
    pen.fillText(line, left, y);
    y += label.size * 1.4;
  }
  const tall = Math.min(flat.height, Math.round(y + 10));

  // Scratches take the print away.
  pen.strokeStyle = label.dark ? '#34373c' : '#d4d1c6';
  for (let scratch = 0; scratch < label.wear.scratches; scratch += 1) {
    pen.lineWidth = 1 + random() * 1.6;
    pen.beginPath();
    const x = random() * flat.width;
    const down = random() * tall;
    pen.moveTo(x, down);
    pen.lineTo(x + (random() - 0.5) * 500, down + (random() - 0.5) * 260);
    pen.stroke();
  }

  // The label in the picture: its corners, turned and seen at an angle.
  const margin = 90;
  const scale = (width - 2 * margin) / flat.width;
  const picture = document.createElement('canvas');
  picture.width = width;
  picture.height = Math.round(
    tall * scale + 2 * margin + Math.abs(Math.sin((label.wear.degrees * Math.PI) / 180)) * width,
  );
  const turn = (label.wear.degrees * Math.PI) / 180;
  const middle = [picture.width / 2, picture.height / 2] as const;
  const w = (flat.width * scale * 0.95) / 2;
  const h = (tall * scale * 0.95) / 2;
  const { across, down } = label.wear;
  const corner = (x: number, up: number) => {
    const shrunk = [x * w * (1 - (down * (1 + up)) / 2), up * h * (1 - (across * (1 + x)) / 2)] as const;
    return [
      middle[0] + shrunk[0] * Math.cos(turn) - shrunk[1] * Math.sin(turn),
      middle[1] + shrunk[0] * Math.sin(turn) + shrunk[1] * Math.cos(turn),
    ] as const;
  };
  const corners = [corner(-1, -1), corner(1, -1), corner(1, 1), corner(-1, 1)] as const;

  // From a point of the picture back to the label: the plane map through four corners.
  const [p0, p1, p2, p3] = corners;
  const dx1 = p1[0] - p2[0];
  const dx2 = p3[0] - p2[0];
  const sx = p0[0] - p1[0] + p2[0] - p3[0];
  const dy1 = p1[1] - p2[1];
  const dy2 = p3[1] - p2[1];
  const sy = p0[1] - p1[1] + p2[1] - p3[1];
  const det = dx1 * dy2 - dx2 * dy1;
  const g = (sx * dy2 - dx2 * sy) / det;
  const k = (dx1 * sy - sx * dy1) / det;
  const a = p1[0] - p0[0] + g * p1[0];
  const b = p3[0] - p0[0] + k * p3[0];
  const c = p0[0];
  const d = p1[1] - p0[1] + g * p1[1];
  const e = p3[1] - p0[1] + k * p3[1];
  const f = p0[1];
  const inverse = [
    e - f * k,
    c * k - b,
    b * f - c * e,
    f * g - d,
    a - c * g,
    c * d - a * f,
    d * k - e * g,
    b * g - a * k,
    a * e - b * d,
  ] as const;
  const source = pen.getImageData(0, 0, flat.width, tall);
  const out = picture.getContext('2d')!;
  const image = out.createImageData(picture.width, picture.height);
  const at = (x: number, row: number, channel: number) => source.data[(row * flat.width + x) * 4 + channel]!;
  const back = label.dark ? 96 : 60;
  const { shade, glare, grain } = label.wear;
  const lamp = [random() * picture.width, random() * picture.height, 120 + random() * 220] as const;
  for (let row = 0; row < picture.height; row += 1)
    for (let x = 0; x < picture.width; x += 1) {
      const depth = inverse[6] * x + inverse[7] * row + inverse[8];
      const u = ((inverse[0] * x + inverse[1] * row + inverse[2]) / depth) * (flat.width - 1);
      const v = ((inverse[3] * x + inverse[4] * row + inverse[5]) / depth) * (tall - 1);
      const inside = u >= 0 && v >= 0 && u < flat.width - 1 && v < tall - 1;
      const light = 1 - shade * (x / picture.width);
      const shine = glare * 255 * Math.exp(-((x - lamp[0]) ** 2 + (row - lamp[1]) ** 2) / lamp[2] ** 2);
      for (let channel = 0; channel < 3; channel += 1) {
        let value = back;
        if (inside) {
          const x0 = Math.floor(u);
          const y0 = Math.floor(v);
          const fx = u - x0;
          const fy = v - y0;
          value =
            (at(x0, y0, channel) * (1 - fx) + at(x0 + 1, y0, channel) * fx) * (1 - fy) +
            (at(x0, y0 + 1, channel) * (1 - fx) + at(x0 + 1, y0 + 1, channel) * fx) * fy;
        }
        image.data[(row * picture.width + x) * 4 + channel] = value * light + shine;
      }
      image.data[(row * picture.width + x) * 4 + 3] = 255;
    }
  out.putImageData(image, 0, 0);

  // Out of focus, then the grain of the sensor.
  const seen = document.createElement('canvas');
  seen.width = picture.width;
  seen.height = picture.height;
  const soft = seen.getContext('2d')!;
  if (label.wear.blur > 0) soft.filter = `blur(${label.wear.blur}px)`;
  soft.drawImage(picture, 0, 0);
  const shot = soft.getImageData(0, 0, seen.width, seen.height);
  for (let at = 0; at < shot.data.length; at += 4) {
    const spread = (random() + random() + random() - 1.5) * 2 * grain;
    for (let channel = 0; channel < 3; channel += 1) shot.data[at + channel] = shot.data[at + channel]! + spread;
  }
  soft.putImageData(shot, 0, 0);
  return seen.toDataURL('image/png');
}
