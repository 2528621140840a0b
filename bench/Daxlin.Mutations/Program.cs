using System.Globalization;
using Daxlin.Testing;
using Daxlin.Testing.Mutations;
using Spectre.Console;

// Invoices that come out clear, each with one thing changed: what of it is held, what nothing could tell, and how often the right
// correction is proposed. A wrong one that is clear although a sum or a check digit could tell is named, and ends the run with 1.
const int UsualCount = 5000;
const int LongFrom = 60;
var folders = args.Where(arg => !arg.StartsWith('-')).Select(Path.GetFullPath).ToList();
if (args.Contains("--help") || folders.Exists(folder => !File.Exists(Path.Combine(folder, "truth.json"))))
{
    Console.Error.WriteLine("bench/mutations [FAMILY…] [--count=N] [--tell]   families of tests/ and samples/ and 5000 changes unless said otherwise; --tell lists what nothing could tell");
    return 2;
}
var count = args.FirstOrDefault(arg => arg.StartsWith("--count=", StringComparison.Ordinal)) is { } said ? int.Parse(said[8..], CultureInfo.InvariantCulture) : UsualCount;
var families = (folders.Count > 0 ? folders : [.. FamilyInvoices.Folders]).Select(folder => FamilyInvoices.Clear(folder).ToList()).Where(invoices => invoices.Count > 0).ToList();
var mutations = Enum.GetValues<Mutation>();
var random = new Random(1);
var made = new List<(Mutation Mutation, FamilyInvoice Invoice, Outcome Outcome)>();
for (var round = 0; made.Count < count; round++)
{
    var before = made.Count;
    // Every family and every kind comes round, so that large families do not drown the others.
    foreach (var invoices in families)
    {
        foreach (var mutation in mutations)
        {
            var invoice = invoices[(round + (int)mutation) % invoices.Count];
            if (made.Count < count && Mutator.Of(invoice, mutation, random) is { } pages)
                made.Add((mutation, invoice, Outcome.Of(invoice, mutation, pages)));
        }
    }
    if (made.Count == before)
        break;
}
var table = new Table { Border = TableBorder.Simple };
table.AddColumn(new TableColumn("changed") { NoWrap = true });
foreach (var heading in new[] { "made", "held", "harmless", "untold", "%", "needless", "wrong", "mendable", "proposed %", "alone %" })
    table.AddColumn(new TableColumn(heading) { NoWrap = true, Padding = new Padding(0, 0, 1, 0) }.RightAligned());
foreach (var (name, all) in made.GroupBy(one => one.Mutation).OrderBy(group => group.Key).Select(group => (group.Key.ToString(), group.ToList())).Append(("all", made)))
{
    int Of(Verdict verdict) => all.Count(one => one.Outcome.Verdict == verdict);
    var mendable = all.Where(one => one.Outcome.IsMendable).ToList();
    string Share(int of, int whole) => whole == 0 ? "" : string.Create(CultureInfo.InvariantCulture, $"{100.0 * of / whole:F1}");
    table.AddRow(
        name, $"{all.Count}", $"{Of(Verdict.Held)}", $"{Of(Verdict.Harmless)}", $"{Of(Verdict.Untold)}", Share(Of(Verdict.Untold), all.Count), $"{Of(Verdict.HeldNeedlessly)}", $"{Of(Verdict.WrongAndClear)}",
        $"{mendable.Count}", Share(mendable.Count(one => one.Outcome.IsProposed), mendable.Count), Share(mendable.Count(one => one.Outcome.IsOnlyProposal), mendable.Count));
}
var console = AnsiConsole.Create(new AnsiConsoleSettings { Out = new AnsiConsoleOutput(Console.Out) });
console.Profile.Width = 120;
console.Write(table);
// The first of them found the code cold.
var proposing = made.Where(one => one.Outcome is { Proposing: not null, Rows: >= LongFrom }).Select(one => one.Outcome).Skip(1).ToList();
if (proposing.Count > 0)
{
    var times = proposing.Select(one => one.Proposing!.Value.TotalMilliseconds).Order().ToList();
    Console.WriteLine(string.Create(CultureInfo.InvariantCulture, $"proposals for {proposing.Count} invoices of {LongFrom} to {proposing.Max(one => one.Rows)} rows: {times[times.Count / 2]:F0} ms, at most {times[^1]:F0} ms"));
}
foreach (var (mutation, invoice, outcome) in made.Where(one => one.Outcome.Verdict == Verdict.WrongAndClear || (args.Contains("--tell") && one.Outcome.Verdict is Verdict.Untold or Verdict.HeldNeedlessly)))
    Console.WriteLine($"{outcome.Verdict}: {mutation}, {invoice.Name}: {string.Join(", ", outcome.Wrong)}");
return made.Exists(one => one.Outcome.Verdict == Verdict.WrongAndClear) ? 1 : 0;
