import * as THREE from "three";
import { OrbitControls } from "three/examples/jsm/controls/OrbitControls.js";
import type { Schemas } from "../../api/client";

/** Tones of what is seen from outside; lines do the rest. */
const TONES: Record<string, number> = {
  roofing: 0x8a8378,
  membrane: 0x8a8378,
  cladding: 0xe6dcc6,
  fascia: 0xf7f2e6,
  soffit: 0xf0e9da,
  barge: 0xf7f2e6,
  glass: 0xa9bcc0,
  stem: 0xb8b1a3,
  footing: 0xb8b1a3,
};
const PLAIN = 0xded5c2;
const CHOSEN = new THREE.Color(0x1f6f78);
const GROUND = 0xe6dfcd;
/** Faces that meet at less than this (deg) have no line between them. */
const CREASE = 18;

/** A house in three dimensions: turned with the pointer, its elements picked by a click. Knows no React. */
export class Scene {
  private readonly scene = new THREE.Scene();
  private readonly camera = new THREE.PerspectiveCamera(35, 1, 10, 1e6);
  private readonly renderer: THREE.WebGLRenderer;
  private readonly controls: OrbitControls;
  private readonly lines = new THREE.LineBasicMaterial({ color: 0x2a2f36 });
  private house = new THREE.Group();
  private placed = false;

  constructor(canvas: HTMLCanvasElement) {
    this.renderer = new THREE.WebGLRenderer({ canvas, antialias: true, alpha: true });
    this.renderer.setPixelRatio(window.devicePixelRatio);
    this.camera.up.set(0, 0, 1);
    this.controls = new OrbitControls(this.camera, canvas);
    this.controls.addEventListener("change", () => this.draw());
    const sun = new THREE.DirectionalLight(0xffffff, 1.9);
    sun.position.set(-0.5, -0.8, 1.1);
    this.scene.add(new THREE.HemisphereLight(0xffffff, 0xb9ad97, 1.5), sun, this.house);
  }

  /** Another house, or another version of it; the eye stays where it is. */
  show({ groups, grade }: Schemas["Solids"], chosen: Set<string>) {
    this.scene.remove(this.house);
    clear(this.house);
    this.house = new THREE.Group();
    for (const group of groups) {
      const shape = new THREE.BufferGeometry();
      shape.setAttribute("position", new THREE.Float32BufferAttribute(group.points, 3));
      shape.setIndex(group.triangles);
      const flat = shape.toNonIndexed();
      flat.computeVertexNormals();
      const color = new THREE.Color(TONES[group.role] ?? PLAIN);
      if (chosen.has(group.element)) color.lerp(CHOSEN, 0.55);
      const body = new THREE.Mesh(
        flat,
        new THREE.MeshLambertMaterial({ color, polygonOffset: true, polygonOffsetFactor: 1, polygonOffsetUnits: 1 }),
      );
      body.userData.element = group.element;
      this.house.add(body, new THREE.LineSegments(new THREE.EdgesGeometry(flat, CREASE), this.lines));
    }
    if (groups.length) this.house.add(ground(this.house, grade));
    this.scene.add(this.house);
    if (!this.placed && groups.length) this.look();
    this.draw();
  }

  /** From the south-west and above, all of it in sight. */
  look() {
    const box = bounds(this.house);
    const middle = box.getCenter(new THREE.Vector3());
    const size = box.getSize(new THREE.Vector3()).length();
    this.camera.position.set(middle.x - size * 0.85, middle.y - size * 1.3, middle.z + size * 0.75);
    this.controls.target.copy(middle);
    this.controls.update();
    this.placed = true;
    this.draw();
  }

  resize(width: number, height: number) {
    this.renderer.setSize(width, height, false);
    this.camera.aspect = width / Math.max(height, 1);
    this.camera.updateProjectionMatrix();
    this.draw();
  }

  /** The element at a place of the canvas, from -1 to 1 across and up. */
  pick(x: number, y: number): string | null {
    const ray = new THREE.Raycaster();
    ray.setFromCamera(new THREE.Vector2(x, y), this.camera);
    const hit = ray.intersectObjects(this.house.children).find((found) => found.object instanceof THREE.Mesh);
    return (hit?.object.userData.element as string | undefined) ?? null;
  }

  dispose() {
    clear(this.house);
    this.controls.dispose();
    this.renderer.dispose();
  }

  private draw() {
    this.renderer.render(this.scene, this.camera);
  }
}

/** The box around the parts of a house, its ground left out. */
function bounds(house: THREE.Group): THREE.Box3 {
  const box = new THREE.Box3();
  for (const held of house.children) if (held.userData.element) box.expandByObject(held);
  return box;
}

/** A piece of level ground that hides what lies below it. */
function ground(house: THREE.Group, grade: number): THREE.Mesh {
  const box = bounds(house);
  const reach = box.getSize(new THREE.Vector3()).length() * 0.75;
  const middle = box.getCenter(new THREE.Vector3());
  const disc = new THREE.Mesh(new THREE.CircleGeometry(reach, 72), new THREE.MeshBasicMaterial({ color: GROUND }));
  disc.position.set(middle.x, middle.y, grade);
  return disc;
}

function clear(group: THREE.Group) {
  group.traverse((held) => {
    if (held instanceof THREE.Mesh || held instanceof THREE.LineSegments) held.geometry.dispose();
    if (held instanceof THREE.Mesh) (held.material as THREE.Material).dispose();
  });
}
