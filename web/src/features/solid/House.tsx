import { type ThreeEvent, useThree } from "@react-three/fiber";
import { useEffect, useMemo } from "react";
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
  background: 0xc3c4c4,
};
const PLAIN = 0xded5c2;
const CHOSEN = new THREE.Color(0x1f6f78);
const GROUND = 0xe6dfcd;
const LINE = 0x2a2f36;
/** Faces that meet at less than this (deg) have no line between them. */
const CREASE = 18;
/** A drag that moves less than this (px) is a click. */
const CLICK = 4;

type Group = Schemas["Solids"]["groups"][number];

interface HouseProps {
  solids: Schemas["Solids"];
  chosen: Set<string>;
  onPick: (element: string) => void;
}

/** The bodies of a house by element, role and material, on a piece of level ground. */
export function House({ solids, chosen, onPick }: HouseProps) {
  const box = useMemo(() => boxOf(solids), [solids]);
  const middle = box.getCenter(new THREE.Vector3());
  const reach = box.getSize(new THREE.Vector3()).length() * 0.75;
  return (
    <>
      <hemisphereLight args={[0xffffff, 0xb9ad97, 1.5]} />
      <directionalLight args={[0xffffff, 1.9]} position={[-0.5, -0.8, 1.1]} />
      {solids.groups.map((group) => (
        <Body
          key={`${group.element} ${group.role} ${group.material}`}
          group={group}
          chosen={chosen.has(group.element)}
          onPick={onPick}
        />
      ))}
      {solids.groups.length > 0 && (
        <mesh position={[middle.x, middle.y, solids.grade]}>
          <circleGeometry args={[reach, 72]} />
          <meshBasicMaterial color={GROUND} />
        </mesh>
      )}
    </>
  );
}

function Body({ group, chosen, onPick }: { group: Group; chosen: boolean; onPick: (element: string) => void }) {
  const [body, edges] = useMemo(() => {
    const shape = new THREE.BufferGeometry();
    shape.setAttribute("position", new THREE.Float32BufferAttribute(group.points, 3));
    shape.setIndex(group.triangles);
    const flat = shape.toNonIndexed();
    flat.computeVertexNormals();
    shape.dispose();
    return [flat, new THREE.EdgesGeometry(flat, CREASE)];
  }, [group]);
  useEffect(
    () => () => {
      body.dispose();
      edges.dispose();
    },
    [body, edges],
  );
  // What lies where the house has the same is behind it.
  const behind = group.role === "background" ? 6 : 1;
  const color = new THREE.Color(TONES[group.role] ?? PLAIN);
  if (chosen) color.lerp(CHOSEN, 0.55);
  const pick = (event: ThreeEvent<MouseEvent>) => {
    event.stopPropagation();
    if (event.delta <= CLICK) onPick(group.element);
  };
  return (
    <>
      {/* biome-ignore lint/a11y/noStaticElementInteractions: a body in a scene is no element of the page */}
      <mesh geometry={body} onClick={pick}>
        <meshLambertMaterial color={color} polygonOffset polygonOffsetFactor={behind} polygonOffsetUnits={behind} />
      </mesh>
      <lineSegments geometry={edges} raycast={() => null}>
        <lineBasicMaterial color={LINE} />
      </lineSegments>
    </>
  );
}

/** The eye: turned, brought nearer and shifted with the pointer. Another `round` shows all of the house again. */
export function Eye({ solids, round }: { solids: Schemas["Solids"]; round: number }) {
  const { camera, gl, invalidate } = useThree();
  const controls = useMemo(() => {
    camera.up.set(0, 0, 1);
    return new OrbitControls(camera, gl.domElement);
  }, [camera, gl]);
  useEffect(() => {
    const draw = () => invalidate();
    controls.addEventListener("change", draw);
    return () => {
      controls.removeEventListener("change", draw);
      controls.dispose();
    };
  }, [controls, invalidate]);
  const empty = solids.groups.length === 0;
  // biome-ignore lint/correctness/useExhaustiveDependencies: another version of the house leaves the eye where it is
  useEffect(() => {
    if (empty) return;
    const box = boxOf(solids);
    const middle = box.getCenter(new THREE.Vector3());
    const size = box.getSize(new THREE.Vector3()).length();
    // From the south-west and above, all of it in sight.
    camera.position.set(middle.x - size * 0.85, middle.y - size * 1.3, middle.z + size * 0.75);
    controls.target.copy(middle);
    controls.update();
    invalidate();
  }, [round, empty, controls]);
  return null;
}

/** The box around the parts of a house, its ground left out. */
function boxOf({ groups }: Schemas["Solids"]): THREE.Box3 {
  const box = new THREE.Box3();
  for (const { points } of groups) box.union(new THREE.Box3().setFromArray(points));
  return box;
}
