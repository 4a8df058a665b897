#include "vision/doubt.h"

#include <algorithm>
#include <cmath>

namespace orthema::vision {

double agreement(const std::vector<Seen>& seen, const std::vector<double>& off) {
    double square = 0;
    for (const double o : off) square += o * o;
    square /= static_cast<double>(std::max<std::size_t>(1, off.size()));
    if (square <= 0) return 1;
    double sum = 1;
    for (std::size_t lag = 1; lag < 25; ++lag) {
        double with = 0;
        std::size_t n = 0;
        for (std::size_t i = 0; i + lag < off.size(); ++i)
            if (seen[i].inner < 0 && seen[i + lag].inner < 0) {
                with += off[i] * off[i + lag];
                ++n;
            }
        const double r = n > 0 ? with / static_cast<double>(n) / square : 0;
        if (r < 0.05) break;
        sum += 2 * r;
    }
    return std::clamp(sum, 1.0, 25.0);
}

double camera_variance(const TableSeen& table, Raised a, Raised b) {
    const Point pa = seen_at(table.camera, a.on, a.height), pb = seen_at(table.camera, b.on, b.height);
    const CameraVector v = figures_of(table.camera);
    CameraVector slope;
    for (int k = 0; k < camera_figures; ++k) {
        const double h = k < 2 ? 1e-5 : k < 5 ? 1e-6 : 1e-3;
        const auto length = [&](double by) {
            CameraVector w = v;
            w[k] += by;
            const CameraPose c = camera_of(w, table.camera.width, table.camera.height);
            return norm(on_table(c, pb, b.height) - on_table(c, pa, a.height));
        };
        slope[k] = (length(h) - length(-h)) / (2 * h);
    }
    const Eigen::Map<const Eigen::Matrix<double, camera_figures, camera_figures>> cov(table.covariance.data());
    return std::max(0.0, slope.dot(cov * slope));
}

}  // namespace orthema::vision
