import { Canvas, useThree } from '@react-three/fiber';
import { useEffect, useMemo } from 'react';
import { CatmullRomCurve3, TubeGeometry, Vector3 } from 'three';
import { OrbitControls } from 'three/examples/jsm/controls/OrbitControls.js';
import type { Plan } from '../api/client';
import { comesOut, GHOST } from './chunks';
import { metalColours } from './metals';
import { stoneColours } from './stones';
import type { Stretch } from './RingView';

interface Props {
  plan: Plan;
  active: Stretch | null;
  onActive: (stretch: Stretch | null) => void;
}

const ROUND_THE_WIRE = 10;

/** The ring in space: every wire a tube of its true thickness along its path. Turned by dragging, or with the arrow keys. */
export default function TurningRing({ plan, active, onActive }: Props) {
  const { drawing } = plan;
  const tubes = useMemo(
    () =>
      (drawing?.strands ?? []).flatMap((strand) => {
        const wire = plan.wires.findIndex((w) => w.role === strand.role && w.piece === strand.piece);
        const told = plan.wires[wire];
        if (!told || strand.points.length < 2) return [];
        const points = strand.points.map(([x = 0, y = 0, z = 0]) => new Vector3(x, y, z));
        const path = new CatmullRomCurve3(points, false, 'centripetal');
        const geometry = new TubeGeometry(path, Math.min(6000, points.length * 2), told.width_mm / 2, ROUND_THE_WIRE);
        const ghost = comesOut(told, strand.move);
        return [{ geometry, wire, move: strand.move, ghost, colour: metalColours(told.metal).body }];
      }),
    [plan, drawing],
  );
  useEffect(() => () => tubes.forEach(({ geometry }) => geometry.dispose()), [tubes]);
  const far = 3.4 * (plan.finished.inside_diameter_mm / 2 + 8);
  return (
    <Canvas
      frameloop="demand"
      camera={{ position: [far * 0.45, far * 0.35, far * 0.8], fov: 32 }}
      aria-label="The ring, to be turned"
    >
      <ambientLight intensity={0.9} />
      <directionalLight position={[20, 40, 30]} intensity={2.6} />
      <directionalLight position={[-30, -10, -20]} intensity={0.8} />
      <Turning />
      {tubes.map(({ geometry, wire, move, ghost, colour }, k) => {
        const lit = active?.wire === wire && active.move === move;
        return (
          <mesh key={k} geometry={geometry} onClick={() => onActive({ wire, move })}>
            <meshStandardMaterial
              color={lit ? '#0f6b63' : colour}
              metalness={0.65}
              roughness={0.35}
              transparent={ghost}
              opacity={ghost ? GHOST : 1}
            />
          </mesh>
        );
      })}
      {drawing?.beads.map((bead, k) => (
        <mesh
          key={k}
          position={[bead.x_mm, bead.y_mm, bead.z_mm]}
          scale={[bead.length_mm, bead.height_mm, bead.width_mm]}
        >
          <sphereGeometry args={[0.5, 40, 28]} />
          <meshPhysicalMaterial color={stoneColours(bead.colour)[1]} roughness={0.15} clearcoat={0.8} />
        </mesh>
      ))}
    </Canvas>
  );
}

function Turning() {
  const { camera, gl, invalidate } = useThree();
  useEffect(() => {
    const controls = new OrbitControls(camera, gl.domElement);
    controls.addEventListener('change', () => invalidate());
    // The page scrolls over it, by wheel and by finger: it only turns.
    controls.enableZoom = false;
    controls.enablePan = false;
    gl.domElement.style.setProperty('touch-action', 'pan-y');
    gl.domElement.setAttribute('tabindex', '0');
    controls.listenToKeyEvents(gl.domElement);
    return () => controls.dispose();
  }, [camera, gl, invalidate]);
  return null;
}
