#include "fem/solver/ordering.h"

#include <algorithm>
#include <array>

namespace talvik::fem {
namespace {

constexpr int leaf = 24;

class Dissection {
  public:
    Dissection(const Graph& graph, const std::vector<geometry::Point>& at, std::stop_token stop)
        : graph_(graph), at_(at), stop_(std::move(stop)), side_(graph.size(), 0) {
        order_.resize(graph.size());
        for (int i = 0; i < graph.size(); ++i) order_[i] = i;
    }
    std::vector<int> run() {
        divide(0, order_.size());
        return std::move(order_);
    }

  private:
    const Graph& graph_;
    const std::vector<geometry::Point>& at_;
    std::stop_token stop_;
    std::vector<int> order_, side_, scratch_;
    int stamp_ = 0;

    // Sorts order_[from, to) into first half, second half, separator.
    void divide(std::size_t from, std::size_t to) {
        if (to - from <= leaf || stop_.stop_requested()) return;
        double x0 = 1e300, x1 = -1e300, y0 = 1e300, y1 = -1e300;
        for (std::size_t k = from; k < to; ++k) {
            auto p = at_[order_[k]];
            x0 = std::min(x0, p.x), x1 = std::max(x1, p.x), y0 = std::min(y0, p.y), y1 = std::max(y1, p.y);
        }
        bool alongX = x1 - x0 >= y1 - y0;
        auto less = [&](int i, int j) {
            double a = alongX ? at_[i].x : at_[i].y, b = alongX ? at_[j].x : at_[j].y;
            return a != b ? a < b : i < j;
        };
        std::size_t half = (from + to) / 2;
        std::nth_element(order_.begin() + from, order_.begin() + half, order_.begin() + to, less);
        int first = ++stamp_, second = ++stamp_;
        for (std::size_t k = from; k < half; ++k) side_[order_[k]] = first;
        for (std::size_t k = half; k < to; ++k) side_[order_[k]] = second;
        auto touches = [&](int node, int other) {
            for (int k = graph_.start[node]; k < graph_.start[node + 1]; ++k)
                if (side_[graph_.to[k]] == other) return true;
            return false;
        };
        std::size_t fromFirst = 0, fromSecond = 0;
        for (std::size_t k = from; k < half; ++k) fromFirst += touches(order_[k], second);
        for (std::size_t k = half; k < to; ++k) fromSecond += touches(order_[k], first);
        bool takeFirst = fromFirst <= fromSecond;
        scratch_.clear();
        std::size_t write = from, middle = 0;
        for (std::size_t k = from; k < to; ++k) {
            if (k == half) middle = write;
            int node = order_[k];
            bool separates =
                takeFirst ? k < half && touches(node, second) : k >= half && touches(node, first);
            if (separates)
                scratch_.push_back(node);
            else
                order_[write++] = node;
        }
        std::copy(scratch_.begin(), scratch_.end(), order_.begin() + write);
        if (middle == from || middle == write) return;  // one half was all separator
        divide(from, middle);
        divide(middle, write);
    }
};

// Postorder of the elimination tree of the graph under an order.
std::vector<int> postorder(const Graph& graph, const std::vector<int>& order) {
    int n = graph.size();
    std::vector<int> place(n), parent(n, -1), ancestor(n, -1);
    for (int i = 0; i < n; ++i) place[order[i]] = i;
    for (int j = 0; j < n; ++j) {
        int node = order[j];
        for (int k = graph.start[node]; k < graph.start[node + 1]; ++k)
            for (int i = place[graph.to[k]]; i != -1 && i < j;) {
                int up = ancestor[i];
                ancestor[i] = j;
                if (up == -1) parent[i] = j;
                i = up;
            }
    }
    std::vector<int> child(n, -1), sibling(n, -1), post, stack;
    for (int j = n - 1; j >= 0; --j)
        if (parent[j] >= 0) sibling[j] = child[parent[j]], child[parent[j]] = j;
    post.reserve(n);
    for (int root = 0; root < n; ++root) {
        if (parent[root] >= 0) continue;
        stack.assign(1, root);
        while (!stack.empty()) {
            int top = stack.back();
            if (int next = child[top]; next >= 0) {
                child[top] = sibling[next];
                stack.push_back(next);
            } else {
                post.push_back(order[top]);
                stack.pop_back();
            }
        }
    }
    return post;
}

}  // namespace

std::vector<int> dissect(const Graph& graph, const std::vector<geometry::Point>& at, std::stop_token stop) {
    std::vector<int> order = Dissection(graph, at, stop).run();
    return stop.stop_requested() ? order : postorder(graph, order);
}

}  // namespace talvik::fem
