/*
 * The baseline of the rehearsal: the steps of an outage, minute by minute, as a plain scalar loop. `npm run bench` gives it the tables and
 * nights that the program plays, and holds its sums against those of the program: only the same work is a baseline.
 *
 * Standard input: figures parted by white space, in the order in which main() reads them. Standard output: nanoseconds of the loop, then
 * served, generator and battery energy (Wh), litres, lowest charge and minutes lasted, each summed over all nights.
 */
#include <stdint.h>
#include <stdio.h>
#include <stdlib.h>
#include <time.h>

enum { DAY = 1440, SEASONS = 73, QUARTER = 15, HOUR = 60, MOST_DAYS = 16, MOST_BOARDS = 8 };
enum { OFF, COMING, RUNNING };

typedef struct {
  double load[DAY], most[DAY], with_engine[DAY], engine[DAY];
} Strain;

typedef struct {
  int season, start, minutes, days;
  uint32_t state;
  double soc, factor, clear[MOST_DAYS];
} Night;

static double full_wh, resting_w, most_discharge_w, most_charge_w, floor_soc, efficiency, spread;
static double from_soc, to_soc, target_w, charge_w, idle_l, l_per_kwh, fuel_l, comes_after;
static int has_engine, ac_stays, boards, everything, without_engine, stages;
static double stage_soc[MOST_BOARDS];
static int stage_bit[MOST_BOARDS];
static double dc_w[SEASONS][DAY], ac_w[SEASONS][DAY];
static Strain strains[1 << MOST_BOARDS];

static double number(void) {
  double value;
  if (scanf("%lf", &value) != 1) {
    fprintf(stderr, "A figure is missing.\n");
    exit(1);
  }
  return value;
}

static void table(double *into, int length) {
  for (int at = 0; at < length; at += 1) into[at] = number();
}

static double next(uint32_t *state) {
  uint32_t mixed = *state += 0x6d2b79f5u;
  mixed = (mixed ^ (mixed >> 15)) * (mixed | 1);
  mixed ^= mixed + (mixed ^ (mixed >> 7)) * (mixed | 61);
  return (mixed ^ (mixed >> 14)) / 4294967296.0;
}

static double positive(double value) { return value > 0 ? value : 0; }
static double least(double a, double b) { return a < b ? a : b; }

static void play(const Night *night, double *sums) {
  const double per_full = 1 / full_wh, per_minute = 1 / 60.0, per_efficiency = 1 / efficiency;
  double board_minutes[MOST_BOARDS] = {0}, trace[HOUR * MOST_DAYS] = {0};
  double held = full_wh * night->soc, soc = night->soc, factor = night->factor, lowest = soc, lasted = -1;
  double litres = 0, wait = 0, since = 0;
  double served_w = 0, unserved_w = 0, dc_sum = 0, ac_sum = 0, curtailed = 0, made = 0, losses = 0, idled = 0, taken = 0;
  uint32_t state = night->state;
  int is_down = 0, engine = OFF, at = night->start, day = 0, season = night->season, dropped = 0, live = -1;
  int engine_minutes = 0, starts = 0, overloads = 0, quarter = 0;
  const Strain *strain = strains;
  double sky = night->clear[0];
  for (int minute = 0; minute < night->minutes; minute += 1) {
    if (quarter == 0) {
      double one = next(&state);
      factor = night->factor * (1 + spread * (one + next(&state) - 1));
      if (minute % HOUR == 0) trace[(minute / HOUR) % (HOUR * MOST_DAYS)] = is_down ? -soc : soc;
    }
    quarter = quarter == QUARTER - 1 ? 0 : quarter + 1;
    if (is_down && soc >= floor_soc + 0.05 - 1e-12) is_down = 0;
    int running = 0;
    if (has_engine) {
      int has_fuel = litres < fuel_l;
      if (engine == OFF && has_fuel && (is_down || soc <= from_soc)) {
        engine = COMING;
        wait = comes_after;
      } else if (engine == COMING) wait -= 1;
      if (engine == COMING && wait <= 0) {
        engine = RUNNING;
        starts += 1;
      }
      if (engine == RUNNING && (soc >= to_soc || !has_fuel)) engine = OFF;
      running = engine == RUNNING;
    }
    for (int stage = 0; stage < stages; stage += 1) {
      if (soc <= stage_soc[stage]) dropped |= stage_bit[stage];
      else if (soc >= stage_soc[stage] + 0.05 - 1e-12) dropped &= ~stage_bit[stage];
    }
    int now_live = running ? everything : without_engine & ~dropped;
    if (now_live != live) {
      for (int board = 0; live >= 0 && board < boards; board += 1)
        if (live & (1 << board)) board_minutes[board] += since;
      since = 0;
      live = now_live;
      strain = &strains[live];
    }
    double wanted = strains[running ? everything : without_engine].load[at] * factor;
    double load = strain->load[at] * factor;
    double clear_dc = dc_w[season][at] * sky, clear_ac = ac_w[season][at] * sky;
    double served = 1, sun_dc = 0, sun_ac = 0, engine_w = 0, loss = 0, idle = 0, battery = 0;
    int is_open = 0;
    if (is_down && !running) {
      served = 0;
      if (clear_dc > resting_w) {
        double into = least(clear_dc - resting_w, least(most_charge_w, (full_wh - held) * HOUR));
        sun_dc = into + resting_w;
        idle = resting_w;
        battery = -into;
      }
    } else if ((running ? strain->with_engine[at] : strain->most[at]) * factor > 1 + 1e-12) is_open = 1;
    else {
      double left = least(most_charge_w, positive((full_wh - held) * HOUR)), into = 0, rest = load;
      if (running) {
        double reached = strain->engine[at] * factor;
        double offered = least(charge_w, positive(target_w - reached));
        double dc = least(offered * efficiency, left);
        engine_w = reached + dc / efficiency;
        loss += dc / efficiency - dc;
        into += dc;
        left -= dc;
        rest = load - reached;
      }
      if (clear_ac > 0 && (!running || ac_stays)) {
        double to_load = least(clear_ac, rest);
        rest -= to_load;
        double dc = least((clear_ac - to_load) * efficiency, left);
        sun_ac = to_load + dc / efficiency;
        loss += dc / efficiency - dc;
        into += dc;
        left -= dc;
      }
      double out = rest * per_efficiency;
      loss += out - rest;
      idle = resting_w;
      double need = out + resting_w, direct = least(clear_dc, need), spare = least(clear_dc - direct, left);
      battery = need - direct - spare - into;
      if (running && rest > 0 && (is_down || battery * per_minute > held - full_wh * floor_soc)) {
        served = (load - rest) / load;
        loss -= out - rest;
        need = resting_w;
        direct = least(clear_dc, need);
        spare = least(clear_dc - direct, left);
        battery = need - direct - spare - into;
      }
      sun_dc = direct + spare;
      if (battery > most_discharge_w) is_open = 1;
      else if (running) {
        double most = positive(held * HOUR);
        if (battery > most) {
          idle -= battery - most;
          battery = most;
        }
      } else {
        double left_wh = held - full_wh * floor_soc;
        if (battery * per_minute > left_wh + 1e-9) {
          double part = positive(left_wh * HOUR) / battery;
          served = part;
          sun_dc *= part;
          sun_ac *= part;
          battery *= part;
          loss *= part;
          idle *= part;
          is_down = 1;
        }
      }
    }
    if (is_open) {
      overloads += 1;
      served = sun_ac = engine_w = loss = 0;
      idle = resting_w;
      sun_dc = least(clear_dc, resting_w);
      battery = resting_w - sun_dc;
      double most = positive(held * HOUR);
      if (battery > most) {
        idle -= battery - most;
        battery = most;
      }
    }
    if (running) {
      engine_minutes += 1;
      litres += (idle_l + l_per_kwh * engine_w / 1000) / HOUR;
    }
    held -= battery * per_minute;
    served_w += load * served;
    unserved_w += wanted - load * served;
    dc_sum += sun_dc;
    ac_sum += sun_ac;
    curtailed += clear_dc + clear_ac - sun_dc - sun_ac;
    made += engine_w;
    losses += loss;
    idled += idle;
    taken += battery;
    since += served;
    if (served < 1 && lasted < 0) lasted = minute + served;
    soc = held * per_full;
    if (soc < lowest) lowest = soc;
    at += 1;
    if (at == DAY) {
      at = 0;
      day += 1;
      sky = night->clear[day < night->days ? day : night->days - 1];
      season = (night->season + day / 5) % SEASONS;
    }
  }
  sums[0] += served_w / HOUR;
  sums[1] += made / HOUR;
  sums[2] += taken / HOUR;
  sums[3] += litres;
  sums[4] += lowest;
  sums[5] += lasted < 0 ? night->minutes : lasted;
  /* Kept so that no sum is optimised away. */
  sums[6] += unserved_w + dc_sum + ac_sum + curtailed + losses + idled + engine_minutes + starts + overloads + since +
             board_minutes[0] + trace[1];
}

int main(void) {
  full_wh = number(), resting_w = number(), most_discharge_w = number(), most_charge_w = number();
  floor_soc = number(), efficiency = number(), spread = number();
  from_soc = number(), to_soc = number(), target_w = number(), charge_w = number();
  idle_l = number(), l_per_kwh = number(), fuel_l = number(), comes_after = number();
  has_engine = (int)number(), ac_stays = (int)number();
  boards = (int)number(), everything = (int)number(), without_engine = (int)number(), stages = (int)number();
  for (int stage = 0; stage < stages; stage += 1) {
    stage_soc[stage] = number();
    stage_bit[stage] = (int)number();
  }
  for (int season = 0; season < SEASONS; season += 1) {
    table(dc_w[season], DAY);
    table(ac_w[season], DAY);
  }
  for (int live = 0; live < 1 << boards; live += 1) {
    table(strains[live].load, DAY);
    table(strains[live].most, DAY);
    table(strains[live].with_engine, DAY);
    table(strains[live].engine, DAY);
  }
  int count = (int)number();
  Night *nights = calloc((size_t)count, sizeof *nights);
  if (nights == NULL) return 1;
  for (int at = 0; at < count; at += 1) {
    Night *one = &nights[at];
    one->season = (int)number(), one->start = (int)number(), one->minutes = (int)number();
    one->state = (uint32_t)number();
    one->soc = number(), one->factor = number();
    one->days = (int)number();
    table(one->clear, one->days);
  }
  double sums[7] = {0};
  struct timespec before, after;
  clock_gettime(CLOCK_MONOTONIC, &before);
  for (int at = 0; at < count; at += 1) play(&nights[at], sums);
  clock_gettime(CLOCK_MONOTONIC, &after);
  printf("%.0f", (double)(after.tv_sec - before.tv_sec) * 1e9 + (double)(after.tv_nsec - before.tv_nsec));
  for (int at = 0; at < 7; at += 1) printf(" %.17g", sums[at]);
  printf("\n");
  return 0;
}
