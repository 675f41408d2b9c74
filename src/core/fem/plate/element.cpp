#include "fem/plate/element.h"

namespace talvik::fem {
namespace {

// Side k runs from corner k to corner next[k].
constexpr int next[3] = {1, 2, 0}, before[3] = {2, 0, 1};

struct Geometry {
    Pack X[3], Y[3];         // along the sides
    Pack gx[3], gy[3];       // gradients of the area coordinates
    Pack a[3];               // 3/2 / ((1 + phi) L^2) of each side
    Pack twiceArea, lambda;  // lambda = 12 D / (5/6 G t); phi = lambda / L^2
    // Per side: curvature of its quadratic rotation, at its first and last corner (times 4).
    Pack Gfirst[3][3], Glast[3][3];
};

// always_inline: compiled with the vector units of whoever calls.
[[gnu::always_inline]] inline void prepare(const ElementGroup& e, Geometry& g) {
    for (int k = 0; k < 3; ++k) {
        g.X[k] = e.x[next[k]] - e.x[k];
        g.Y[k] = e.y[next[k]] - e.y[k];
    }
    g.twiceArea = g.X[0] * g.Y[1] - g.X[1] * g.Y[0];
    g.lambda = 12.0 * (e.oneWay ? e.D + e.U : e.D) * e.flexibility;
    for (int i = 0; i < 3; ++i) {  // opposite side of corner i: next[i]
        g.gx[i] = -g.Y[next[i]] / g.twiceArea;
        g.gy[i] = g.X[next[i]] / g.twiceArea;
    }
    for (int k = 0; k < 3; ++k) {
        g.a[k] = 1.5 / (g.X[k] * g.X[k] + g.Y[k] * g.Y[k] + g.lambda);
        int i = k, j = next[k];
        g.Gfirst[k][0] = 4.0 * g.gx[j] * g.X[k];
        g.Gfirst[k][1] = 4.0 * g.gy[j] * g.Y[k];
        g.Gfirst[k][2] = 4.0 * (g.gy[j] * g.X[k] + g.gx[j] * g.Y[k]);
        g.Glast[k][0] = 4.0 * g.gx[i] * g.X[k];
        g.Glast[k][1] = 4.0 * g.gy[i] * g.Y[k];
        g.Glast[k][2] = 4.0 * (g.gy[i] * g.X[k] + g.gx[i] * g.Y[k]);
    }
}

}  // namespace

// With kappa0 the curvature of the linear part and g_k the amount of each side's quadratic rotation, both
// linear in the unknowns, the energy is a quadratic form in these six numbers; see the header for the source.
TALVIK_VECTORISED void stiffness(const ElementGroup& e, Pack* out) {
    Geometry g;
    prepare(e, g);
    const Pack one = {1, 1, 1, 1, 1, 1, 1, 1};
    Pack area = 0.5 * g.twiceArea;
    Pack D = e.D * area, Dn = D * e.nu, Ds = 0.5 * D * (one - e.nu);

    // E: 6 x 6 energy of (kappa0, g). D times the mean of each side's curvature field:
    Pack C[3][3], DC[3][3];  // [side][component]
    for (int k = 0; k < 3; ++k) {
        for (int c = 0; c < 3; ++c) C[k][c] = (g.Gfirst[k][c] + g.Glast[k][c]) * (1.0 / 3);
        DC[k][0] = D * C[k][0] + Dn * C[k][1];
        DC[k][1] = Dn * C[k][0] + D * C[k][1];
        DC[k][2] = Ds * C[k][2];
    }
    const Pack none = {0, 0, 0, 0, 0, 0, 0, 0};
    const Pack U = e.oneWay ? e.U * area : none;
    const Pack V[3] = {e.oneWay ? e.cc : none, e.oneWay ? e.ss : none, e.oneWay ? e.cs : none};
    auto along = [&](const Pack* k) __attribute__((always_inline)) { return V[0] * k[0] + V[1] * k[1] + V[2] * k[2]; };
    if (e.oneWay)
        for (int k = 0; k < 3; ++k) {
            const Pack m = U * along(C[k]);
            for (int c = 0; c < 3; ++c) DC[k][c] += m * V[c];
        }
    // Each field is linear: its values at the three corners; the mean of a product of linear fields is
    // (sum of corner products + product of sums) / 12.
    Pack S[3][3];
    for (int k = 0; k < 3; ++k)
        for (int l = 0; l <= k; ++l) {
            // Corner values: of side k at its first corner Gfirst, at its last Glast, else zero.
            Pack p00 = one * 0, p11 = p00, p01 = p00, p22 = p00, oneWay = p00;
            for (int corner = 0; corner < 3; ++corner) {
                bool kf = corner == k, kl = corner == next[k], lf = corner == l, ll = corner == next[l];
                if (!(kf || kl) || !(lf || ll)) continue;
                const Pack* u = kf ? g.Gfirst[k] : g.Glast[k];
                const Pack* v = lf ? g.Gfirst[l] : g.Glast[l];
                p00 += u[0] * v[0];
                p11 += u[1] * v[1];
                p01 += u[0] * v[1] + u[1] * v[0];
                p22 += u[2] * v[2];
                if (e.oneWay) oneWay += along(u) * along(v);
            }
            Pack q = D * (p00 + p11) + Dn * p01 + Ds * p22 + U * oneWay;
            q += 9.0 * (DC[k][0] * C[l][0] + DC[k][1] * C[l][1] + DC[k][2] * C[l][2]);
            S[k][l] = q * (1.0 / 12);
        }
    // Shear: along each side L gamma = -8 (D / Gt) g; at each corner the two sides give the vector; linear
    // inside.
    {
        const Pack full = e.oneWay ? e.D + e.U : e.D;
        Pack scale = 64.0 * full * full * e.flexibility * area * (1.0 / 12) / (g.twiceArea * g.twiceArea);
        // Shear vector at corner i from sides k = i and m = before[i]: columns per side.
        Pack vx[3][3], vy[3][3];  // [corner][side]
        Pack sx[3], sy[3];
        for (int i = 0; i < 3; ++i) {
            int k = i, m = before[i], n = next[i];
            vx[i][k] = -g.Y[m];
            vx[i][m] = g.Y[k];
            vx[i][n] = one * 0;
            vy[i][k] = g.X[m];
            vy[i][m] = -g.X[k];
            vy[i][n] = one * 0;
        }
        for (int s = 0; s < 3; ++s) {
            sx[s] = vx[0][s] + vx[1][s] + vx[2][s];
            sy[s] = vy[0][s] + vy[1][s] + vy[2][s];
        }
        for (int k = 0; k < 3; ++k)
            for (int l = 0; l <= k; ++l) {
                Pack q = sx[k] * sx[l] + sy[k] * sy[l];
                for (int i = 0; i < 3; ++i) q += vx[i][k] * vx[i][l] + vy[i][k] * vy[i][l];
                S[k][l] += scale * q;
            }
    }
    // g_k = -a [ (wj - wi) + 1/2 (X (bxi + bxj) + Y (byi + byj)) ]: columns of B for the side's two nodes.
    // B of side k per node: w, bx, by.
    Pack B[3][3][3];  // [side][node][unknown]
    for (int k = 0; k < 3; ++k) {
        int i = k, j = next[k], o = before[k];
        Pack hx = -0.5 * g.a[k] * g.X[k], hy = -0.5 * g.a[k] * g.Y[k];
        B[k][i][0] = g.a[k];
        B[k][j][0] = -g.a[k];
        B[k][i][1] = B[k][j][1] = hx;
        B[k][i][2] = B[k][j][2] = hy;
        for (int d = 0; d < 3; ++d) B[k][o][d] = one * 0;
    }
    // T = E B, rows of the six numbers; then K = B^T T.
    for (int n = 0; n < 3; ++n)
        for (int d = 0; d < 3; ++d) {
            // Column (n, d): kappa0 = (gx bx, gy by, gy bx + gx by).
            Pack k0 = one * 0, k1 = k0, k2 = k0;
            if (d == 1) k0 = g.gx[n], k2 = g.gy[n];
            if (d == 2) k1 = g.gy[n], k2 = g.gx[n];
            Pack b0 = B[0][n][d], b1 = B[1][n][d], b2 = B[2][n][d];
            Pack t0 = D * k0 + Dn * k1 + DC[0][0] * b0 + DC[1][0] * b1 + DC[2][0] * b2;
            Pack t1 = Dn * k0 + D * k1 + DC[0][1] * b0 + DC[1][1] * b1 + DC[2][1] * b2;
            Pack t2 = Ds * k2 + DC[0][2] * b0 + DC[1][2] * b1 + DC[2][2] * b2;
            if (e.oneWay) {
                const Pack curvature[3] = {k0, k1, k2}, m = U * along(curvature);
                t0 += m * V[0], t1 += m * V[1], t2 += m * V[2];
            }
            Pack s0 =
                DC[0][0] * k0 + DC[0][1] * k1 + DC[0][2] * k2 + S[0][0] * b0 + S[1][0] * b1 + S[2][0] * b2;
            Pack s1 =
                DC[1][0] * k0 + DC[1][1] * k1 + DC[1][2] * k2 + S[1][0] * b0 + S[1][1] * b1 + S[2][1] * b2;
            Pack s2 =
                DC[2][0] * k0 + DC[2][1] * k1 + DC[2][2] * k2 + S[2][0] * b0 + S[2][1] * b1 + S[2][2] * b2;
            int column = 3 * n + d;
            for (int m = n; m < 3; ++m)
                for (int c = 0; c < 3; ++c) {
                    int row = 3 * m + c;
                    if (row < column) continue;
                    Pack v = B[0][m][c] * s0 + B[1][m][c] * s1 + B[2][m][c] * s2;
                    if (c == 1) v += g.gx[m] * t0 + g.gy[m] * t2;
                    if (c == 2) v += g.gy[m] * t1 + g.gx[m] * t2;
                    out[row * (row + 1) / 2 + column] = v;
                }
        }
}

TALVIK_VECTORISED void cornerMoments(const ElementGroup& e, int cases, const Pack* u, Pack* out) {
    Geometry g;
    prepare(e, g);
    const Pack one = {1, 1, 1, 1, 1, 1, 1, 1};
    Pack Dn = e.D * e.nu, Ds = 0.5 * e.D * (one - e.nu);
    for (int c = 0; c < cases; ++c, u += 9, out += 9) {
        Pack kx = g.gx[0] * u[1] + g.gx[1] * u[4] + g.gx[2] * u[7];
        Pack ky = g.gy[0] * u[2] + g.gy[1] * u[5] + g.gy[2] * u[8];
        Pack kxy = g.gy[0] * u[1] + g.gy[1] * u[4] + g.gy[2] * u[7] + g.gx[0] * u[2] + g.gx[1] * u[5] +
                   g.gx[2] * u[8];
        Pack amount[3];
        for (int k = 0; k < 3; ++k) {
            int i = k, j = next[k];
            amount[k] =
                -g.a[k] *
                (u[3 * j] - u[3 * i] +
                 0.5 * (g.X[k] * (u[3 * i + 1] + u[3 * j + 1]) + g.Y[k] * (u[3 * i + 2] + u[3 * j + 2])));
        }
        for (int i = 0; i < 3; ++i) {
            int k = i, m = before[i];  // side k starts here, side m ends here
            Pack x = kx + g.Gfirst[k][0] * amount[k] + g.Glast[m][0] * amount[m];
            Pack y = ky + g.Gfirst[k][1] * amount[k] + g.Glast[m][1] * amount[m];
            Pack xy = kxy + g.Gfirst[k][2] * amount[k] + g.Glast[m][2] * amount[m];
            out[3 * i] = e.D * x + Dn * y;
            out[3 * i + 1] = Dn * x + e.D * y;
            out[3 * i + 2] = Ds * xy;
            if (e.oneWay) {
                const Pack bending = e.U * (e.cc * x + e.ss * y + e.cs * xy);  // along the direction
                out[3 * i] += bending * e.cc, out[3 * i + 1] += bending * e.ss, out[3 * i + 2] += bending * e.cs;
            }
        }
    }
}

}  // namespace talvik::fem
