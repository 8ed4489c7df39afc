import { cos, sin } from '../values/elementary.ts';
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
  const [tilt, direction, latitude] = [tiltDeg * RAD, directionDeg * RAD, latitudeDeg * RAD];
  const [sinLatitude, cosLatitude, cosTilt, sinTilt] = [sin(latitude), cos(latitude), cos(tilt), sin(tilt)];
  const [northward, eastward] = [cos(direction), sin(direction)];
  // Declination by Cooper: δ = 23.45° · sin(360° · (284 + n) / 365). Noon is when the sun stands highest.
  const declination = 23.45 * RAD * sin((2 * Math.PI * (284 + dayOfYear)) / 365);
  const [sinDeclination, cosDeclination] = [sin(declination), cos(declination)];
  for (let minute = 0; minute < MINUTES_OF_DAY; minute += 1) {
    const hourAngle = ((minute - MINUTES_OF_DAY / 2) / 4) * RAD;
    const cosHour = cos(hourAngle);
    // Where the sun stands, as parts of a vector of length one.
    const up = sinLatitude * sinDeclination + cosLatitude * cosDeclination * cosHour;
    if (up <= 0.01) continue;
    const east = -cosDeclination * sin(hourAngle);
    const north = cosLatitude * sinDeclination - sinLatitude * cosDeclination * cosHour;
    const direct = SOLAR_W_M2 * power(0.7, power(up, -0.678));
    const onPlane = cosTilt * up + sinTilt * (north * northward + east * eastward);
    light[minute] = direct * Math.max(0, onPlane) + (DIFFUSE * direct * (1 + cosTilt)) / 2;
  }
  return light;
}
