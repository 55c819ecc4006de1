using WarmConduit.Bench;

// Usage: bench [FILTER]; the filter is a word of a benchmark's class or name, "engines" for the engines alone, nothing for all.
string filter = args.FirstOrDefault() ?? "";
var figures = new Figures();
figures.Run(filter);
if (filter is "" or "web") await WebFigures.Add(figures);
figures.Print(Console.Out);
if (filter is "engines") figures.WriteTable(Path.Combine(Repository.Root, "docs", "engines", "figures.md"));
return figures.AllWithin ? 0 : 1;
