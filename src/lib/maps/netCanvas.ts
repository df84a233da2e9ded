/** Draws nodes and edges with WebGL 2: lines grow stronger towards where they lead, nodes have verdicts’ shapes. */
import { verdictShapes } from '../list/verdictShapes';

/** From units of the layout to pixels: `x · scale + left`. */
export interface NetView {
  scale: number;
  left: number;
  top: number;
}

/** Red, green, blue and opacity, each from 0 to 1. */
export type Ink = readonly [number, number, number, number];

export interface DrawnNode {
  x: number;
  y: number;
  radius: number;
  ink: Ink;
  /** An index of {@link shapeNames}. */
  shape: number;
}

export interface DrawnEdge {
  from: { x: number; y: number };
  to: { x: number; y: number };
  ink: Ink;
  /** Opacity at its beginning, as a part of that at its end. */
  begin: number;
}

export const shapeNames = Object.keys(verdictShapes) as (keyof typeof verdictShapes)[];
/** Smaller nodes cannot be seen, nor pointed at. */
export const LEAST_PIXELS = 2.5;

/** Pixels of a shape in the picture that all are taken from. */
const CELL = 64;

const place = `
  uniform vec3 view;
  uniform vec2 size;
  vec4 placed(vec2 at) {
    vec2 pixel = at * view.x + view.yz;
    return vec4(pixel.x / size.x * 2.0 - 1.0, 1.0 - pixel.y / size.y * 2.0, 0.0, 1.0);
  }`;
const lineShaders = [
  `#version 300 es
  in vec2 at; in vec4 ink; out vec4 colour;
  ${place}
  void main() { gl_Position = placed(at); colour = ink; }`,
  `#version 300 es
  precision mediump float;
  in vec4 colour; out vec4 pixel;
  void main() { pixel = vec4(colour.rgb * colour.a, colour.a); }`,
] as const;
const nodeShaders = [
  `#version 300 es
  in vec2 at; in vec4 ink; in float radius; in float shape; out vec4 colour; flat out float cell;
  uniform float dots; uniform float least;
  ${place}
  void main() {
    gl_Position = placed(at);
    gl_PointSize = 2.4 * max(least, radius * view.x) * dots;
    colour = ink; cell = shape;
  }`,
  `#version 300 es
  precision mediump float;
  in vec4 colour; flat in float cell; out vec4 pixel;
  uniform sampler2D shapes; uniform float count;
  void main() {
    float there = texture(shapes, vec2((cell + gl_PointCoord.x) / count, gl_PointCoord.y)).a * colour.a;
    pixel = vec4(colour.rgb * there, there);
  }`,
] as const;

function programOf(gl: WebGL2RenderingContext, [vertex, fragment]: readonly [string, string]): WebGLProgram {
  const program = gl.createProgram();
  for (const [type, text] of [
    [gl.VERTEX_SHADER, vertex],
    [gl.FRAGMENT_SHADER, fragment],
  ] as const) {
    const shader = gl.createShader(type)!;
    gl.shaderSource(shader, text);
    gl.compileShader(shader);
    gl.attachShader(program, shader);
  }
  gl.linkProgram(program);
  if (!gl.getProgramParameter(program, gl.LINK_STATUS)) throw new Error(gl.getProgramInfoLog(program) ?? '');
  return program;
}

/** All shapes beside each other, opaque where they are. */
function shapesPicture(): HTMLCanvasElement {
  const canvas = document.createElement('canvas');
  canvas.width = CELL * shapeNames.length;
  canvas.height = CELL;
  const context = canvas.getContext('2d')!;
  shapeNames.forEach((name, i) => {
    const { filled, line, width = 1, dashes } = verdictShapes[name];
    context.setTransform(CELL / 12, 0, 0, CELL / 12, i * CELL, 0);
    if (filled) context.fill(new Path2D(filled));
    context.lineWidth = width;
    context.setLineDash(dashes?.split(' ').map(Number) ?? []);
    if (line) context.stroke(new Path2D(line));
  });
  return canvas;
}

const FLOAT_BYTES = 4;

/** Opens a canvas for drawing; null where the browser has no WebGL 2. */
export function openNetCanvas(canvas: HTMLCanvasElement) {
  const gl = canvas.getContext('webgl2', { antialias: true, premultipliedAlpha: true });
  if (!gl) return null;
  const [lines, nodes] = [programOf(gl, lineShaders), programOf(gl, nodeShaders)];
  gl.bindTexture(gl.TEXTURE_2D, gl.createTexture());
  gl.texImage2D(gl.TEXTURE_2D, 0, gl.RGBA, gl.RGBA, gl.UNSIGNED_BYTE, shapesPicture());
  gl.generateMipmap(gl.TEXTURE_2D);
  gl.texParameteri(gl.TEXTURE_2D, gl.TEXTURE_MIN_FILTER, gl.LINEAR_MIPMAP_LINEAR);
  gl.enable(gl.BLEND);
  gl.blendFunc(gl.ONE, gl.ONE_MINUS_SRC_ALPHA);

  /** Makes what draws numbers that lie in rows, one for each point. */
  function drawer(program: WebGLProgram, fields: readonly (readonly [name: string, numbers: number])[], mode: number) {
    const buffer = gl!.createBuffer();
    const array = gl!.createVertexArray();
    const row = fields.reduce((sum, [, numbers]) => sum + numbers, 0);
    let points = 0;
    gl!.bindVertexArray(array);
    gl!.bindBuffer(gl!.ARRAY_BUFFER, buffer);
    let at = 0;
    for (const [name, numbers] of fields) {
      const field = gl!.getAttribLocation(program, name);
      gl!.enableVertexAttribArray(field);
      gl!.vertexAttribPointer(field, numbers, gl!.FLOAT, false, row * FLOAT_BYTES, at * FLOAT_BYTES);
      at += numbers;
    }
    return {
      fill: (rows: Float32Array) => {
        gl!.bindBuffer(gl!.ARRAY_BUFFER, buffer);
        gl!.bufferData(gl!.ARRAY_BUFFER, rows, gl!.DYNAMIC_DRAW);
        points = rows.length / row;
      },
      draw: (uniforms: Record<string, readonly number[]>) => {
        gl!.useProgram(program);
        gl!.bindVertexArray(array);
        for (const [name, values] of Object.entries(uniforms)) {
          const where = gl!.getUniformLocation(program, name);
          if (values.length === 1) gl!.uniform1f(where, values[0]);
          else if (values.length === 2) gl!.uniform2f(where, values[0], values[1]);
          else gl!.uniform3f(where, values[0], values[1], values[2]);
        }
        gl!.drawArrays(mode, 0, points);
      },
    };
  }
  const ends = [
    ['at', 2],
    ['ink', 4],
  ] as const;
  const faint = drawer(lines, ends, gl.LINES);
  const strong = drawer(lines, ends, gl.LINES);
  const marks = drawer(nodes, [...ends, ['radius', 1], ['shape', 1]], gl.POINTS);
  const rowsOf = (edges: readonly DrawnEdge[]) => {
    const rows = new Float32Array(12 * edges.length);
    edges.forEach(({ from, to, ink: [red, green, blue, opacity], begin }, i) =>
      rows.set([from.x, from.y, red, green, blue, opacity * begin, to.x, to.y, red, green, blue, opacity], 12 * i),
    );
    return rows;
  };
  return {
    faintEdges: (edges: readonly DrawnEdge[]) => faint.fill(rowsOf(edges)),
    strongEdges: (edges: readonly DrawnEdge[]) => strong.fill(rowsOf(edges)),
    nodes: (drawn: readonly DrawnNode[]) => {
      const rows = new Float32Array(8 * drawn.length);
      drawn.forEach(({ x, y, ink, radius, shape }, i) => rows.set([x, y, ...ink, radius, shape], 8 * i));
      marks.fill(rows);
    },
    draw: ({ scale, left, top }: NetView, width: number, height: number) => {
      const dots = devicePixelRatio;
      canvas.width = Math.round(width * dots);
      canvas.height = Math.round(height * dots);
      gl.viewport(0, 0, canvas.width, canvas.height);
      gl.clear(gl.COLOR_BUFFER_BIT);
      const uniforms = { view: [scale, left, top], size: [width, height] };
      faint.draw(uniforms);
      strong.draw(uniforms);
      marks.draw({ ...uniforms, dots: [dots], least: [LEAST_PIXELS], count: [shapeNames.length] });
    },
    close: () => gl.getExtension('WEBGL_lose_context')?.loseContext(),
  };
}
export type NetCanvas = NonNullable<ReturnType<typeof openNetCanvas>>;

/** What a colour of CSS looks like in the theme as it is now. */
export function inkReader(): (colour: string, opacity?: number) => Ink {
  const probe = document.createElement('span');
  const canvas = document.createElement('canvas');
  canvas.width = canvas.height = 1;
  const context = canvas.getContext('2d', { willReadFrequently: true })!;
  const known = new Map<string, readonly [number, number, number]>();
  return (colour, opacity = 1) => {
    let ink = known.get(colour);
    if (!ink) {
      document.body.append(probe);
      probe.style.color = colour;
      context.fillStyle = getComputedStyle(probe).color;
      probe.remove();
      context.fillRect(0, 0, 1, 1);
      const [red, green, blue] = context.getImageData(0, 0, 1, 1).data;
      known.set(colour, (ink = [red / 255, green / 255, blue / 255]));
    }
    return [...ink, opacity];
  };
}
