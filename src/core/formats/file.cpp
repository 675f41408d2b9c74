#include "formats/file.h"

#include <fcntl.h>
#include <fmt/format.h>
#include <sys/stat.h>
#include <unistd.h>

#include <cerrno>
#include <cstring>
#include <filesystem>
#include <fstream>

namespace talvik::formats {

FileText readFile(const std::string& path, std::size_t limit) {
    struct stat info {};
    if (stat(path.c_str(), &info) != 0)
        return {{}, fmt::format("{} cannot be read: {}.", path, std::strerror(errno))};
    if (S_ISDIR(info.st_mode)) return {{}, fmt::format("{} is a folder; name a file.", path)};
    if (static_cast<std::size_t>(info.st_size) > limit)
        return {{},
                fmt::format("{} is larger than {} MB; it cannot be a file of this kind.", path, limit >> 20)};
    std::ifstream in(path, std::ios::binary);
    std::string text(static_cast<std::size_t>(info.st_size), '\0');
    in.read(text.data(), static_cast<std::streamsize>(text.size()));
    text.resize(static_cast<std::size_t>(in.gcount()));
    if (in.bad() || !in.is_open())
        return {{}, fmt::format("{} cannot be read: {}.", path, std::strerror(errno))};
    return {std::move(text), {}};
}

std::string writeFile(const std::string& path, std::string_view bytes) {
    auto failed = [&](const std::string& what) {
        return fmt::format("{} cannot be written: {}.", what, std::strerror(errno));
    };
    std::string temporary = path + ".XXXXXX";
    int file = mkstemp(temporary.data());
    if (file < 0) return failed(path);
    struct stat old {};
    mode_t mode = stat(path.c_str(), &old) == 0 ? old.st_mode & 0777 : 0644;
    bool good = fchmod(file, mode) == 0;
    for (std::size_t done = 0; good && done < bytes.size();) {
        ssize_t n = write(file, bytes.data() + done, bytes.size() - done);
        good = n > 0;
        if (good) done += static_cast<std::size_t>(n);
    }
    good = good && fsync(file) == 0;
    good = close(file) == 0 && good;
    good = good && rename(temporary.c_str(), path.c_str()) == 0;
    if (good) return {};
    std::string sentence = failed(path);
    unlink(temporary.c_str());
    return sentence;
}

std::string numbered(const std::string& path, std::size_t number, std::size_t of) {
    if (of < 2) return path;
    const std::filesystem::path p(path);
    auto name = p.stem();
    name += "-" + std::to_string(number);
    name += p.extension();
    return (p.parent_path() / name).string();
}

}  // namespace talvik::formats
