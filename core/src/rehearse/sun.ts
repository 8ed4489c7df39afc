import { power } from '../values/power.ts';
/** Where a plane of modules looks. */
export interface Plane {
  readonly tiltDeg: number;
  /** Clockwise from north. */
  readonly directionDeg: number;
}

const RAD = Math.PI / 180;
/** Sunlight outside the air, W/m². */
const SOLAR_W_M2 = 1361;
/** Share of the direct light that reaches a plane from the rest of the sky on a clear day. */
const DIFFUSE = 0.1;
const MINUTES_OF_DAY = 1440;

/** Height and direction of the sun at a minute of solar time. */
interface Sun {
  readonly sinHeight: number;
  readonly heightRad: number;
  readonly directionRad: number;
}

/** Declination by Cooper: δ = 23.45° · sin(360° · (284 + n) / 365). Noon is when the sun stands highest. */
function sunAt(latitudeDeg: number, dayOfYear: number, minute: number): Sun {
  const declination = 23.45 * RAD * Math.sin((2 * Math.PI * (284 + dayOfYear)) / 365);
  const hourAngle = ((minute - MINUTES_OF_DAY / 2) / 4) * RAD;
  const latitude = latitudeDeg * RAD;
  const sinHeight =
    Math.sin(latitude) * Math.sin(declination) +
    Math.cos(latitude) * Math.cos(declination) * Math.cos(hourAngle);
  const east = -Math.cos(declination) * Math.sin(hourAngle);
  const north =
    Math.cos(latitude) * Math.sin(declination) -
    Math.sin(latitude) * Math.cos(declination) * Math.cos(hourAngle);
  return { sinHeight, heightRad: Math.asin(sinHeight), directionRad: Math.atan2(east, north) };
}

/**
 * Light on a plane under a clear sky, W/m², by minute of solar time: direct light 1361 · 0.7^(AM^0.678) with AM = 1 / sin h (Meinel),
 * on the plane by the angle to it, and a tenth of it from the rest of the sky that the plane sees.
 */
export function clearSky(
  latitudeDeg: number,
  dayOfYear: number,
  { tiltDeg, directionDeg }: Plane,
): Float64Array {
  const light = new Float64Array(MINUTES_OF_DAY);
  const tilt = tiltDeg * RAD;
  const direction = directionDeg * RAD;
  for (let minute = 0; minute < MINUTES_OF_DAY; minute += 1) {
    const { sinHeight, heightRad, directionRad } = sunAt(latitudeDeg, dayOfYear, minute);
    if (sinHeight <= 0.01) continue;
    const direct = SOLAR_W_M2 * power(0.7, power(sinHeight, -0.678));
    const onPlane =
      Math.cos(tilt) * sinHeight + Math.sin(tilt) * Math.cos(heightRad) * Math.cos(directionRad - direction);
    light[minute] = direct * Math.max(0, onPlane) + (DIFFUSE * direct * (1 + Math.cos(tilt))) / 2;
  }
  return light;
}
