// What tests of caps and pads share: the standards, and a check by the end of its key.
#pragma once

#include <memory>
#include <string>
#include <vector>

#include "checks/checks.h"
#include "standards/rules.h"

namespace talvik::test {

inline std::shared_ptr<const standards::Standard> standard(bool en = true) {
    static const auto a = standards::makeStandard("en1992"), b = standards::makeStandard("aci318-si");
    return en ? a : b;
}
inline const checks::Check* find(const std::vector<checks::Check>& all, const std::string& key) {
    for (const auto& c : all)
        if (c.key.ends_with(key)) return &c;
    return nullptr;
}

}  // namespace talvik::test
