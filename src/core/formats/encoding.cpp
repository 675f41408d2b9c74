#include "formats/encoding.h"

#include <algorithm>
#include <optional>

namespace talvik::formats {
namespace {

// 0x80 to 0x9F of code page 1252; those it leaves out stand for themselves.
constexpr unsigned western[] = {0x20AC, 0x81,   0x201A, 0x0192, 0x201E, 0x2026, 0x2020, 0x2021,
                                0x02C6, 0x2030, 0x0160, 0x2039, 0x0152, 0x8D,   0x017D, 0x8F,
                                0x90,   0x2018, 0x2019, 0x201C, 0x201D, 0x2022, 0x2013, 0x2014,
                                0x02DC, 0x2122, 0x0161, 0x203A, 0x0153, 0x9D,   0x017E, 0x0178};

unsigned byteAt(std::string_view s, std::size_t i) {
    return static_cast<unsigned char>(s[i]);
}

}  // namespace

bool isUtf8(std::string_view s) {
    for (std::size_t i = 0; i < s.size();) {
        const unsigned c = byteAt(s, i);
        const std::size_t more = c < 0x80                ? 0
                                 : c >= 0xC2 && c < 0xE0 ? 1
                                 : c >= 0xE0 && c < 0xF0 ? 2
                                 : c >= 0xF0 && c < 0xF5 ? 3
                                                         : 9;
        if (more == 9 || i + more >= s.size()) return false;
        unsigned code = more == 0 ? c : c & (0x3Fu >> more);
        for (std::size_t k = 1; k <= more; ++k) {
            const unsigned next = byteAt(s, i + k);
            if ((next & 0xC0) != 0x80) return false;
            code = code << 6 | (next & 0x3F);
        }
        if ((more == 2 && code < 0x800) || (more == 3 && (code < 0x10000 || code > 0x10FFFF)) ||
            (code >= 0xD800 && code < 0xE000))
            return false;
        i += more + 1;
    }
    return true;
}

void putUtf8(std::string& out, unsigned code) {
    if (code > 0x10FFFF || (code >= 0xD800 && code < 0xE000)) code = 0xFFFD;
    auto tail = [&](int shift) { out += char(0x80 | (code >> shift & 0x3F)); };
    if (code < 0x80)
        out += char(code);
    else if (code < 0x800)
        out += char(0xC0 | code >> 6), tail(0);
    else if (code < 0x10000)
        out += char(0xE0 | code >> 12), tail(6), tail(0);
    else
        out += char(0xF0 | code >> 18), tail(12), tail(6), tail(0);
}

unsigned takeUtf8(std::string_view s, std::size_t& i) {
    const unsigned c = byteAt(s, i);
    const std::size_t more = c < 0x80 ? 0 : c < 0xE0 ? 1 : c < 0xF0 ? 2 : 3;
    unsigned code = more == 0 ? c : c & (0x3Fu >> more);
    for (std::size_t k = 1; k <= more && i + k < s.size(); ++k) code = code << 6 | (byteAt(s, i + k) & 0x3F);
    i += more + 1;
    return code;
}

std::u16string utf16(unsigned code) {
    if (code < 0x10000) return {char16_t(code)};
    code -= 0x10000;
    return {char16_t(0xD800 + (code >> 10)), char16_t(0xDC00 + (code & 0x3FF))};
}

namespace {

// Which byte of each pair is the high one; none where this is not UTF-16.
std::optional<std::size_t> highByte(std::string_view s) {
    if (s.size() < 2 || s.size() % 2) return {};
    if (s.starts_with("\xFF\xFE")) return 1;
    if (s.starts_with("\xFE\xFF")) return 0;
    std::size_t noughts[2] = {0, 0};
    const std::size_t n = std::min<std::size_t>(s.size(), 64);
    for (std::size_t i = 0; i < n; ++i) noughts[i % 2] += s[i] == 0;
    for (std::size_t high : {0u, 1u})
        if (n >= 8 && noughts[high] == n / 2 && noughts[1 - high] == 0) return high;
    return {};
}
std::string fromUtf16(std::string_view s, std::size_t high) {
    std::string out;
    auto unit = [&](std::size_t i) { return byteAt(s, i + high) << 8 | byteAt(s, i + 1 - high); };
    for (std::size_t i = 0; i + 1 < s.size(); i += 2) {
        unsigned code = unit(i);
        if (i == 0 && code == 0xFEFF) continue;
        if (code >= 0xD800 && code < 0xDC00 && i + 3 < s.size())
            if (const unsigned low = unit(i + 2); low >= 0xDC00 && low < 0xE000)
                code = 0x10000 + ((code - 0xD800) << 10) + (low - 0xDC00), i += 2;
        putUtf8(out, code);
    }
    return out;
}

}  // namespace

std::string asUtf8(std::string_view bytes) {
    if (const auto high = highByte(bytes)) return asUtf8(fromUtf16(bytes, *high));
    const bool already = isUtf8(bytes);
    std::string out;
    out.reserve(bytes.size());
    for (std::size_t i = 0; i < bytes.size(); ++i) {
        const unsigned c = byteAt(bytes, i);
        if ((c < 32 && c != '\n' && c != '\r' && c != '\t') || c == 127)
            out += ' ';
        else if (c < 0x80 || already)
            out += bytes[i];
        else
            putUtf8(out, c < 0xA0 ? western[c - 0x80] : c);
    }
    return out;
}

}  // namespace talvik::formats
