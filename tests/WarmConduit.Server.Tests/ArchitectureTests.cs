using System.Reflection;
using NetArchTest.Rules;
using WarmConduit.Application.Answers;
using WarmConduit.Core.Registry;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies;
using WarmConduit.Store;

namespace WarmConduit.Server.Tests;

/// <summary>The arrows of the house: Server → Application → Store → Core, and engines that know no rig and not each other.</summary>
public class ArchitectureTests
{
    private static readonly Assembly Core = typeof(Rig).Assembly;
    private static readonly string[] Engines = ["Levels", "Heat", "Flow"];
    private static readonly string[] Upper = ["Rigs", "Studies", "Advice", "Procedures"];

    private static string Root()
    {
        string root = AppContext.BaseDirectory;
        while (!File.Exists(Path.Combine(root, "WarmConduit.slnx"))) root = Path.GetDirectoryName(root)!;
        return root;
    }

    private static void None(Types types, string from, params string[] to)
    {
        var result = types.That().ResideInNamespaceStartingWith(from).ShouldNot().HaveDependencyOnAny(to).GetResult();
        Assert.True(result.IsSuccessful, string.Join(", ", result.FailingTypeNames ?? []));
    }

    /// <summary>What is read on one screen: lines of 160 characters, files of 300 lines. A text of some lines in C#, and one that the formatter of the front
    /// end does not break, may be longer.</summary>
    [Fact]
    public void Files_and_lines_are_short()
    {
        string root = Root();
        string[] apart = ["/obj/", "/bin/", "/node_modules/", "/Migrations/", "schema.d.ts", "/results/"];
        int read = 0;
        foreach (string file in (string[])["src", "tests", "bench", "web/src", "e2e"])
            foreach (string path in Directory.EnumerateFiles(Path.Combine(root, file), "*.*", SearchOption.AllDirectories)
                .Where(p => Path.GetExtension(p) is ".cs" or ".ts" or ".tsx" && !apart.Any(p.Replace('\\', '/').Contains)))
            {
                string[] lines = File.ReadAllLines(path);
                read++;
                bool web = path.EndsWith(".ts", StringComparison.Ordinal) || path.EndsWith(".tsx", StringComparison.Ordinal);
                Assert.All(lines, l => Assert.True(l.Length <= 160 || (web ? l.Contains('"') || l.Contains('`')
                    : l.Contains("\"\"\"", StringComparison.Ordinal)), $"{path}: {l}"));
                Assert.True(lines.Length <= 300 || path.Contains("tests", StringComparison.Ordinal), $"{path}: {lines.Length} lines");
            }
        Assert.True(read > 500);
    }

    [Fact]
    public void Core_references_nothing_but_the_framework() =>
        Assert.All(Core.GetReferencedAssemblies(), a => Assert.StartsWith("System", a.Name!, StringComparison.Ordinal));

    [Fact]
    public void Engines_know_no_rig_and_not_each_other()
    {
        foreach (string engine in Engines)
        {
            var others = Engines.Where(e => e != engine).Concat(Upper).Select(e => $"WarmConduit.Core.{e}").ToArray();
            None(Types.InAssembly(Core), $"WarmConduit.Core.{engine}", others);
        }
    }

    [Fact]
    public void Rigs_know_no_study_and_no_engine_studies_no_advice_and_networks_no_study()
    {
        None(Types.InAssembly(Core), "WarmConduit.Core.Rigs", ["WarmConduit.Core.Studies", "WarmConduit.Core.Advice",
            .. Engines.Select(e => $"WarmConduit.Core.{e}")]);
        None(Types.InAssembly(Core), "WarmConduit.Core.Studies", "WarmConduit.Core.Advice", "WarmConduit.Core.Registry");
        None(Types.InAssembly(Core), "WarmConduit.Core.Studies.Networks", "WarmConduit.Core.Studies.DrainDown", "WarmConduit.Core.Studies.FreezeLadder",
            "WarmConduit.Core.Studies.Standing");
        None(Types.InAssembly(Core), "WarmConduit.Core.Materials", "WarmConduit.Core.Rigs");
        None(Types.InAssembly(Core), "WarmConduit.Core.Rigs.Upgrades", "WarmConduit.Core.Rigs.Edits");
    }

    [Fact]
    public void The_steady_balance_knows_nothing_of_the_night_engine()
    {
        var steady = Types.InAssembly(Core).That().ResideInNamespace("WarmConduit.Core.Heat").And().DoNotResideInNamespace("WarmConduit.Core.Heat.Night")
            .ShouldNot().HaveDependencyOn("WarmConduit.Core.Heat.Night").GetResult();
        Assert.True(steady.IsSuccessful, string.Join(", ", steady.FailingTypeNames ?? []));
    }

    [Fact]
    public void Every_study_is_registered_and_has_the_one_shape()
    {
        var classes = Core.GetTypes().Where(t => t.Name.EndsWith("Study", StringComparison.Ordinal) && t.IsAbstract && t.IsSealed).ToList();
        foreach (var study in classes)
        {
            var ask = study.GetMethod("Ask")!;
            var known = Assert.Single(StudyRegistry.All, s => s.Answer == ask.ReturnType);
            Assert.Equal(known.Input is { } input ? [typeof(Question), input] : [typeof(Question)], ask.GetParameters().Select(p => p.ParameterType));
        }
        Assert.Equal(StudyRegistry.All.Count, StudyRegistry.All.Select(s => s.Name).Distinct().Count());
    }

    [Fact]
    public void Core_touches_no_file_and_no_clock()
    {
        None(Types.InAssembly(Core), "WarmConduit.Core", "System.IO.File", "System.IO.Directory", "System.Net", "System.TimeProvider");
        // A time that was written down is a value like any other; what time it is now is not asked.
        foreach (string path in Directory.EnumerateFiles(Path.Combine(Root(), "src/WarmConduit.Core"), "*.cs", SearchOption.AllDirectories))
            Assert.DoesNotMatch(@"DateTime(Offset)?\.(Utc)?(Now|Today)|Stopwatch|TickCount", File.ReadAllText(path));
    }

    [Fact]
    public void Store_knows_no_application_and_neither_knows_a_server()
    {
        None(Types.InAssembly(typeof(Shelf).Assembly), "WarmConduit.Store", "WarmConduit.Application", "WarmConduit.Server", "Microsoft.AspNetCore");
        None(Types.InAssembly(typeof(AnswerDesk).Assembly), "WarmConduit.Application", "WarmConduit.Server", "Microsoft.AspNetCore");
    }
}
