// A short run of a fuzz target without libFuzzer: its seeds as they are, then RUNS damaged ones, the same
// every time.
//   TARGET_short RUNS TARGET SEEDS FOLDER
// SEEDS is fuzz/seeds.txt; its paths count from FOLDER. The input of a run that goes wrong is kept.
#include <csignal>
#include <cstdint>
#include <cstdio>
#include <cstdlib>
#include <filesystem>
#include <fstream>
#include <iterator>
#include <random>
#include <sstream>
#include <string>
#include <vector>

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size);

namespace {

std::string input;  // of the run under way
std::string keptAs;

// Only what a handler of a signal may call that is about to end the process anyway.
void keep(int signal) {
    std::signal(signal, SIG_DFL);
    if (std::FILE* f = std::fopen(keptAs.c_str(), "wb")) {
        std::fwrite(input.data(), 1, input.size(), f);
        std::fclose(f);
    }
    std::fprintf(stderr, "went wrong with the input kept as %s\n", keptAs.c_str());
    std::raise(signal);
}

std::vector<std::string> seeds(const std::string& target, const char* list, const char* folder) {
    std::vector<std::string> all;
    std::ifstream in(list);
    for (std::string line; std::getline(in, line);) {
        std::istringstream words(line);
        std::string name, first, path;
        if (line.empty() || line[0] == '#' || !(words >> name >> first >> path) || name != target) continue;
        std::ifstream file(std::filesystem::path(folder) / path, std::ios::binary);
        if (!file) {
            std::fprintf(stderr, "There is no %s, which %s names.\n", path.c_str(), list);
            std::exit(2);
        }
        std::string text(std::istreambuf_iterator<char>(file), {});
        if (first != "-") text.insert(text.begin(), char(std::stoi(first)));
        all.push_back(std::move(text));
    }
    return all;
}

std::string damaged(std::string s, std::mt19937& random) {
    static const char* const odd[] = {"1e308", "-1", "0",    "NaN",      "null",
                                      "[]",    "{}", "\"\"", "\xff\xfe", "=1+1"};
    auto below = [&](std::size_t n) { return n ? random() % n : 0; };
    for (std::size_t k = 1 + below(6); k > 0 && !s.empty(); --k) {
        // The first byte says what the rest is, and stays more often than not.
        const std::size_t at = below(s.size());
        switch (below(5)) {
            case 0:
                s[at] = char(below(256));
                break;
            case 1:
                s.erase(at, 1 + below(200));
                break;
            case 2:
                s.insert(at, s.substr(below(s.size()), 1 + below(200)));
                break;
            case 3:
                s.insert(at, odd[below(std::size(odd))]);
                break;
            default: {
                const auto digit = s.find_first_of("0123456789", at);
                if (digit != std::string::npos) s[digit] = char('0' + below(10));
            }
        }
    }
    return s;
}

}  // namespace

int main(int argc, char** argv) {
    if (argc != 5) return std::fprintf(stderr, "RUNS TARGET SEEDS FOLDER\n"), 2;
    const int runs = std::atoi(argv[1]);
    const auto all = seeds(argv[2], argv[3], argv[4]);
    if (runs <= 0 || all.empty()) return std::fprintf(stderr, "There is nothing to run.\n"), 2;
    keptAs = (std::filesystem::temp_directory_path() / (std::string("talvik-") + argv[2])).string();
    for (int s : {SIGABRT, SIGSEGV, SIGFPE, SIGBUS, SIGILL}) std::signal(s, keep);
    auto run = [](std::string text) {
        input = std::move(text);
        LLVMFuzzerTestOneInput(reinterpret_cast<const std::uint8_t*>(input.data()), input.size());
    };
    for (const auto& s : all) run(s);
    std::mt19937 random(20261129);
    for (int k = 0; k < runs; ++k) {
        // Every fourth from bytes alone: of these the floors are made that no file describes.
        std::string text;
        if (k % 4 == 3)
            for (std::size_t n = 50 + random() % 400; n > 0; --n) text += char(random() % 256);
        else
            text = damaged(all[random() % all.size()], random);
        run(std::move(text));
    }
    std::printf("%zu seeds and %d damaged ones\n", all.size(), runs);
}
