import * as THREE from "three";
import type { Obstacle } from "../api/types";
import type { Vec } from "../travel/space";

/** The frame's axes (rearward, right, up) as the renderer's: x rearward, y up, z to the left. */
export const put = ([x, y, z]: Vec) => new THREE.Vector3(x, z, -y);

const material = (name: Ink, opacity = 1) =>
  new THREE.MeshLambertMaterial({
    color: inkOf(name),
    transparent: opacity < 1,
    opacity,
    depthWrite: opacity === 1,
    side: THREE.DoubleSide,
  });

export type Ink = "rule" | "added" | "removed" | "touch" | "placed" | "chalk" | "ink" | "faint" | "sheet";

/** A colour of the theme as it stands now. */
export function inkOf(name: Ink): THREE.Color {
  const value = getComputedStyle(document.documentElement).getPropertyValue(`--chakra-colors-${name}`).trim();
  return new THREE.Color(value || "#888888");
}

/** Prisms of a rail, or of what is welded to it, as one body: each row is four corners (x, z), then the least and the most y. */
export function prismMesh(prisms: readonly number[][], name: string, ink: Ink): THREE.Mesh {
  const at: number[] = [];
  const face = (a: Vec, b: Vec, c: Vec, d: Vec) => {
    for (const p of [a, b, c, a, c, d]) at.push(...put(p).toArray());
  };
  for (const row of prisms) {
    const corner = (k: number, y: number): Vec => [row[2 * k] ?? 0, y, row[2 * k + 1] ?? 0];
    const [y0, y1] = [row[8] ?? 0, row[9] ?? 0];
    const [a, b] = [0, 1, 2, 3].reduce<[Vec[], Vec[]]>(
      ([low, high], k) => [
        [...low, corner(k, y0)],
        [...high, corner(k, y1)],
      ],
      [[], []],
    );
    const [a0, a1, a2, a3] = a as [Vec, Vec, Vec, Vec];
    const [b0, b1, b2, b3] = b as [Vec, Vec, Vec, Vec];
    face(a0, a1, a2, a3);
    face(b0, b1, b2, b3);
    face(a0, a1, b1, b0);
    face(a3, a2, b2, b3);
    if (a0[2] !== a3[2]) face(a0, a3, b3, b0);
    if (a1[2] !== a2[2]) face(a1, a2, b2, b1);
  }
  const geometry = new THREE.BufferGeometry();
  geometry.setAttribute("position", new THREE.Float32BufferAttribute(at, 3));
  geometry.computeVertexNormals();
  const mesh = new THREE.Mesh(geometry, material(ink));
  mesh.name = name;
  return mesh;
}

/** A round bar between two points, to be moved later. */
export function barMesh(radius: number, ink: Ink): THREE.Mesh {
  return new THREE.Mesh(new THREE.CylinderGeometry(radius, radius, 1, 14), material(ink));
}

const UP = new THREE.Vector3(0, 1, 0);

/** Lay a bar from one point to another. */
export function layBar(mesh: THREE.Mesh, a: Vec, b: Vec): void {
  const [p, q] = [put(a), put(b)];
  const along = q.clone().sub(p);
  const long = along.length();
  mesh.visible = long > 1e-6;
  mesh.position.copy(p.add(q).multiplyScalar(0.5));
  mesh.scale.set(1, Math.max(long, 1e-6), 1);
  mesh.quaternion.setFromUnitVectors(UP, along.normalize());
}

/** A tyre about its axis (the mesh's own up), open inside its rim. */
export function tyreMesh(radius: number, width: number): THREE.Mesh {
  const rim = radius * 0.58;
  const round = width * 0.16;
  const half = width / 2;
  const profile = [
    [rim, -half * 0.8],
    [radius - round, -half],
    [radius, -half + round],
    [radius, half - round],
    [radius - round, half],
    [rim, half * 0.8],
    [rim, -half * 0.8],
  ].map(([r, y]) => new THREE.Vector2(r, y));
  return new THREE.Mesh(new THREE.LatheGeometry(profile, 48), material("rule", 0.55));
}

/** Turn a tyre's axis to a direction at a place. */
export function standTyre(mesh: THREE.Mesh, centre: Vec, out: Vec): void {
  mesh.position.copy(put(centre));
  const axis = put([out[0] - centre[0], out[1] - centre[1], out[2] - centre[2]]).normalize();
  mesh.quaternion.setFromUnitVectors(UP, axis);
}

/** What the user placed, with its mirror image. */
export function obstacleMeshes(obstacle: Obstacle): THREE.Mesh[] {
  const { body } = obstacle;
  return (obstacle.mirrored ? [1, -1] : [1]).map((side) => {
    const flip = (p: { x_mm: number; y_mm: number; z_mm: number }): Vec => [p.x_mm, side * p.y_mm, p.z_mm];
    if (body.shape === "bar") {
      const mesh = barMesh(body.diameter_mm / 2, "placed");
      layBar(mesh, flip(body.a), flip(body.b));
      mesh.material = material("placed", 0.6);
      mesh.name = obstacle.name;
      return mesh;
    }
    const mesh = new THREE.Mesh(
      new THREE.BoxGeometry(body.long_mm, body.high_mm, body.wide_mm),
      material("placed", 0.45),
    );
    mesh.position.copy(put(flip(body.middle)));
    mesh.rotation.set(
      0,
      (side * (body.yaw_deg ?? 0) * Math.PI) / 180,
      (-(body.nose_up_deg ?? 0) * Math.PI) / 180,
      "YXZ",
    );
    mesh.name = obstacle.name;
    return mesh;
  });
}

/** A ball of radius 1 where two things come nearest. */
export function markMesh(): THREE.Mesh {
  const mesh = new THREE.Mesh(new THREE.SphereGeometry(1, 20, 14), material("touch"));
  mesh.renderOrder = 2;
  (mesh.material as THREE.Material).depthTest = false;
  return mesh;
}
