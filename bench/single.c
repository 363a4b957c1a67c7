/* One ball on cloth and cushions in C: the same formulas, steps and landings as core/physics
   (cloth.py, cushion.py, engine.run without balls and jaws), written by hand for the comparison in
   speed.py. Velocities in m/s, w = R*omega. Checked there to give the same places as the kernels. */
#include <math.h>

#define GRAVITY 9.81
#define SLIP_LIMIT 1e-9
#define REST_LIMIT 1e-9
enum { RESTING, SLIDING, ROLLING };
enum { NEAR, FAR, HEAD, FOOT };
enum { LENGTH, WIDTH, RADIUS, MU_S, MU_R, DECAY, REST, MU_W, SIN_T, CORNER, SIDE, STEPS };

typedef struct { double x, y, vx, vy, wx, wy, wz; } Ball;
typedef struct { double t, n, wt, wn, wz; } Spin;      /* vt, vn, wt, wn, wz */
typedef struct { double ft, fz, gt, gn; } Grip;
typedef struct { double s, c, mu_w, mu_s; } Nose;

static int phase(const Ball *b, double mu_s, double mu_r, double *lasts, double *ax, double *ay) {
    double ux = b->vx - b->wy, uy = b->vy + b->wx, slip = sqrt(ux * ux + uy * uy);
    if (slip > SLIP_LIMIT) {
        double a = mu_s * GRAVITY;
        *lasts = slip / (3.5 * a); *ax = -a * ux / slip; *ay = -a * uy / slip;
        return SLIDING;
    }
    double speed = sqrt(b->vx * b->vx + b->vy * b->vy);
    if (speed > REST_LIMIT) {
        double a = mu_r * GRAVITY;
        *lasts = speed / a; *ax = -a * b->vx / speed; *ay = -a * b->vy / speed;
        return ROLLING;
    }
    *lasts = INFINITY; *ax = *ay = 0.0;
    return RESTING;
}

static void advance(Ball *b, int kind, double t, int whole, double ax, double ay, double decay) {
    b->x += t * (b->vx + 0.5 * ax * t);
    b->y += t * (b->vy + 0.5 * ay * t);
    b->vx += ax * t;
    b->vy += ay * t;
    if (kind == SLIDING) {
        b->wy -= 2.5 * ax * t;
        b->wx += 2.5 * ay * t;
        if (whole) { b->wx = -b->vy; b->wy = b->vx; }
    } else if (whole) b->vx = b->vy = b->wx = b->wy = 0.0;
    else { b->wx = -b->vy; b->wy = b->vx; }
    b->wz = copysign(fmax(fabs(b->wz) - decay * t, 0.0), b->wz);
}

static double reach_line(double gap, double v, double a, double longest) {
    double t = INFINITY;
    if (gap < 0.0) gap = 0.0;
    if (gap == 0.0) {
        if (v > 0.0 || (v == 0.0 && a > 0.0)) return 0.0;
        if (a > 0.0) { t = -2.0 * v / a; return t <= longest ? t : INFINITY; }
        return INFINITY;
    }
    if (a == 0.0) {
        if (v > 0.0) t = gap / v;
        return t <= longest ? t : INFINITY;
    }
    double disc = v * v + 2.0 * a * gap;
    if (disc < 0.0) return INFINITY;
    double root = sqrt(disc);
    if (v > 0.0) t = 2.0 * gap / (v + root);
    else if (a > 0.0) t = (root - v) / a;
    return t <= longest ? t : INFINITY;
}

/* ---- cushion ---- */
#define MAX_STEPS 4000
#define STIFF 1.0
#define CLOSING 0.5
#define TURN_PER_STEP 0.2
#define CLOTH_TURN 1.0
#define STRAIGHT 1e-3
#define SMALLEST_STEP (1.0 / 256)
#define SNAP 2e-4
#define ZERO 1e-10

static void friction(double s1, double s2, double b1, double b2, double a1, double a2, double limit, double tiny,
                     double *f1, double *f2) {
    double size = sqrt(s1 * s1 + s2 * s2);
    if (size > tiny) { *f1 = -limit * s1 / size; *f2 = -limit * s2 / size; return; }
    *f1 = -b1 / a1; *f2 = -b2 / a2;
    if (*f1 * *f1 + *f2 * *f2 <= limit * limit) return;
    double d1 = b1, d2 = b2;
    for (int i = 0; i < 12; i++) {
        size = sqrt(d1 * d1 + d2 * d2);
        double e1 = b1 - limit * a1 * d1 / size, e2 = b2 - limit * a2 * d2 / size;
        d1 = e1; d2 = e2;
    }
    size = sqrt(d1 * d1 + d2 * d2);
    *f1 = -limit * d1 / size; *f2 = -limit * d2 / size;
}

static Grip held_forces(double st, double sz, double ut, double un, const Nose *k, double tiny_nose, double tiny) {
    Grip f = {0, 0, 0, 0};
    double s = k->s, c = k->c;
    for (int i = 0; i < 60; i++) {
        double ft = f.ft, fz = f.fz;
        friction(st, sz, (1 - 2.5 * s) * f.gt, s * c + (2.5 - s) * f.gn, 3.5, 2.5 + s * s, k->mu_w, tiny_nose, &f.ft, &f.fz);
        double press = fmax(s - c * f.fz, 0.0);
        friction(ut, un, (1 - 2.5 * s) * f.ft, -c + (2.5 - s) * f.fz, 3.5, 3.5, k->mu_s * press, tiny, &f.gt, &f.gn);
        if (fabs(f.ft - ft) + fabs(f.fz - fz) < 1e-15) break;
    }
    return f;
}

static Grip forces(const Spin *v, const Nose *k, double tiny_nose, double tiny, int held, double h1, double h2) {
    double s = k->s, c = k->c;
    double st = v->t + v->wn * s - v->wz * c, sz = v->wt - s * v->n, ut = v->t - v->wn, un = v->n + v->wt;
    double nose = st * st + sz * sz, cloth = ut * ut + un * un;
    Grip f;
    if (nose > tiny_nose * tiny_nose && cloth > tiny * tiny) {
        double q = -k->mu_w / sqrt(nose);
        f.ft = q * st; f.fz = q * sz;
        if (held) { f.ft = -k->mu_w * h1; f.fz = -k->mu_w * h2; }
        q = -k->mu_s * fmax(s - c * f.fz, 0.0) / sqrt(cloth);
        f.gt = q * ut; f.gn = q * un;
        return f;
    }
    if (cloth > tiny * tiny) {
        double share = k->mu_s / sqrt(cloth);
        f.fz = (-s * c + (2.5 - s) * share * un * s) / (2.5 + s * s + (2.5 - s) * share * un * c);
        double press = s - c * f.fz;
        f.gt = -share * press * ut; f.gn = -share * press * un;
        f.ft = -(1 - 2.5 * s) * f.gt / 3.5;
        if (press >= 0.0 && f.ft * f.ft + f.fz * f.fz <= k->mu_w * k->mu_w) return f;
    }
    return held_forces(st, sz, ut, un, k, tiny_nose, tiny);
}

static Spin rates(const Grip *f, double s, double c) {
    Spin r = {f->ft + f->gt, -c - s * f->fz + f->gn, 2.5 * (f->fz + f->gn), 2.5 * (s * f->ft - f->gt), -2.5 * c * f->ft};
    return r;
}

static double slip_step(double s1, double s2, double d1, double d2, double limit, double turn, double step,
                        double smallest, double tiny) {
    double size = sqrt(s1 * s1 + s2 * s2);
    if (size <= tiny) return step;
    step = fmin(step, fmax(STIFF * size / (3.5 * limit), smallest));
    double closing = -(s1 * d1 + s2 * d2) / size;
    if (closing * step > CLOSING * size) step = CLOSING * size / closing;
    double turning = fabs(s1 * d2 - s2 * d1) / (size * size);
    if (turning * step > turn) step = fmin(step, fmax(turn / turning, smallest));
    return step;
}

static double scale(int mode, double dvn, double vn, double c) {
    return mode == 1 ? 1.0 / dvn : mode == 2 ? 1.0 / (-c * vn) : 1.0;
}

static double plan(const Spin *v, const Spin *r, const Nose *k, double plain, double smallest, double tiny,
                   int *held, double *h1, double *h2) {
    double s = k->s, c = k->c;
    double s1 = v->t + v->wn * s - v->wz * c, s2 = v->wt - s * v->n;
    double d1 = r->t + r->wn * s - r->wz * c, d2 = r->wt - s * r->n;
    double step = slip_step(v->t - v->wn, v->n + v->wt, r->t - r->wn, r->n + r->wt, k->mu_s * s, CLOTH_TURN, plain, smallest, tiny);
    double size = sqrt(s1 * s1 + s2 * s2);
    *held = 0; *h1 = *h2 = 0.0;
    if (size > tiny) {
        double closing = -(s1 * d1 + s2 * d2) / size;
        double end = closing > 0.0 ? fmin(step, size / closing) : step;
        if (fabs(s1 * d2 - s2 * d1) * end < STRAIGHT * size * size) {
            *held = 1; *h1 = s1 / size; *h2 = s2 / size;
            return end;
        }
    }
    return slip_step(s1, s2, d1, d2, k->mu_w, TURN_PER_STEP, step, smallest, tiny);
}

static void runge(Spin *v, double *work, const Spin *r, double step, int mode, const Nose *k, double tiny,
                  int held, double h1, double h2) {
    double c = k->c, q = scale(mode, r->n, v->n, c);
    double d[6] = {q * r->t, q * r->n, q * r->wt, q * r->wn, q * r->wz, q * c * v->n}, a[6];
    for (int i = 0; i < 6; i++) a[i] = d[i];
    for (int stage = 0; stage < 3; stage++) {
        double reach = stage == 2 ? step : 0.5 * step, weight = stage == 2 ? 1.0 : 2.0;
        Spin now = {v->t + reach * d[0], v->n + reach * d[1], v->wt + reach * d[2], v->wn + reach * d[3], v->wz + reach * d[4]};
        Grip f = forces(&now, k, tiny, tiny, held, h1, h2);
        Spin e = rates(&f, k->s, c);
        q = scale(mode, e.n, now.n, c);
        d[0] = q * e.t; d[1] = q * e.n; d[2] = q * e.wt; d[3] = q * e.wn; d[4] = q * e.wz; d[5] = q * c * now.n;
        for (int i = 0; i < 6; i++) a[i] += weight * d[i];
    }
    double h = step / 6.0;
    v->t += h * a[0]; v->n += h * a[1]; v->wt += h * a[2]; v->wn += h * a[3]; v->wz += h * a[4];
    *work += h * a[5];
}

static void snap(Spin *v, const Nose *k, double size, double tiny) {
    double s = k->s, c = k->c, st = v->t + v->wn * s - v->wz * c, sz = v->wt - s * v->n, slip2 = st * st + sz * sz;
    if (slip2 > size * size || slip2 <= tiny * tiny) return;
    Grip f = forces(v, k, size, tiny, 0, 0.0, 0.0);
    Spin r = rates(&f, s, c);
    if (fabs(r.t + r.wn * s - r.wz * c) + fabs(r.wt - s * r.n) > 1e-9) return;
    double ut = v->t - v->wn, un = v->n + v->wt, slip = sqrt(ut * ut + un * un);
    double share = slip > tiny ? k->mu_s * c / slip : 0.0;
    Grip g;
    g.fz = -sz / (2.5 + s * s + (2.5 - s) * share * un);
    g.gt = share * ut * g.fz; g.gn = share * un * g.fz;
    g.ft = -(st + (1 - 2.5 * s) * g.gt) / 3.5;
    Spin d = rates(&g, s, 0.0);
    v->t += d.t; v->n += d.n; v->wt += d.wt; v->wn += d.wn; v->wz -= 2.5 * c * g.ft;
}

static int bounce(Spin *v, const Nose *k, double restitution, double steps) {
    double s = k->s, c = k->c;
    double size = sqrt(v->t * v->t + v->n * v->n + v->wt * v->wt + v->wn * v->wn + v->wz * v->wz), tiny = ZERO * size;
    double plain = v->n / (c * steps), smallest = plain * SMALLEST_STEP, work = 0.0, goal = 0.0, h1, h2;
    int released = 0, held;
    for (int i = 0; i < MAX_STEPS; i++) {
        snap(v, k, SNAP * size, tiny);
        Grip f = forces(v, k, tiny, tiny, 0, 0.0, 0.0);
        Spin r = rates(&f, s, c);
        double step = plan(v, &r, k, plain, smallest, tiny, &held, &h1, &h2);
        if (!released && v->n + step * r.n <= 0.0) {
            runge(v, &work, &r, -v->n, 1, k, tiny, held, h1, h2);
            v->n = 0.0; released = 1; goal = work * (1.0 - restitution * restitution);
            continue;
        }
        Spin after = *v;
        double done = work;
        runge(&after, &done, &r, step, 0, k, tiny, held, h1, h2);
        if (!released || done > goal) { *v = after; work = done; }
        else if (v->n == 0.0) plain *= 0.25;
        else { runge(v, &work, &r, work - goal, 2, k, tiny, held, h1, h2); return 1; }
    }
    return 0;
}

static const double OUT[4][2] = {{0, -1}, {0, 1}, {-1, 0}, {1, 0}};

static double gap_to(int rail, const Ball *b, const double *p) {
    double r = p[RADIUS];
    return rail == NEAR ? b->y - r : rail == FAR ? p[WIDTH] - r - b->y : rail == HEAD ? b->x - r : p[LENGTH] - r - b->x;
}

/* Play `b` until its rail number `most`; events (x, y, speed, speed after a rail) go to out. Returns rails met. */
int play(double *state, const double *p, int most, double *out) {
    Ball b = {state[0], state[1], state[2], state[3], state[4], state[5], state[6]};
    Nose k = {p[SIN_T], sqrt(1.0 - p[SIN_T] * p[SIN_T]), p[MU_W], p[MU_S]};
    int met = 0;
    for (;;) {
        double lasts, ax, ay;
        int kind = phase(&b, p[MU_S], p[MU_R], &lasts, &ax, &ay);
        if (kind == RESTING) break;
        double first = lasts;
        int rail = -1;
        for (int i = 0; i < 4; i++) {
            double nx = OUT[i][0], ny = OUT[i][1];
            double hit = reach_line(gap_to(i, &b, p), b.vx * nx + b.vy * ny, ax * nx + ay * ny, first);
            if (hit < first) { first = hit; rail = i; }
        }
        advance(&b, kind, first, rail < 0, ax, ay, p[DECAY]);
        if (rail < 0) continue;
        if (rail == NEAR) b.y = p[RADIUS];
        else if (rail == FAR) b.y = p[WIDTH] - p[RADIUS];
        else if (rail == HEAD) b.x = p[RADIUS];
        else b.x = p[LENGTH] - p[RADIUS];
        double *row = out + 4 * met++;
        row[0] = b.x; row[1] = b.y; row[2] = sqrt(b.vx * b.vx + b.vy * b.vy); row[3] = 0.0;
        if (met >= most) break;
        double nx = OUT[rail][0], ny = OUT[rail][1], tx = ny, ty = -nx;
        Spin v = {b.vx * tx + b.vy * ty, b.vx * nx + b.vy * ny, b.wx * tx + b.wy * ty, b.wx * nx + b.wy * ny, b.wz};
        if (!bounce(&v, &k, p[REST], p[STEPS])) return -1;
        b.vx = v.t * tx + v.n * nx; b.vy = v.t * ty + v.n * ny;
        b.wx = v.wt * tx + v.wn * nx; b.wy = v.wt * ty + v.wn * ny; b.wz = v.wz;
        row[3] = sqrt(b.vx * b.vx + b.vy * b.vy);
    }
    return met;
}

/* The same shot n times, as the kernel's own loop does it. */
int play_many(double *state, const double *p, int most, double *out, long n) {
    int met = 0;
    for (long i = 0; i < n; i++) met += play(state, p, most, out);
    return met;
}
