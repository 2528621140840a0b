using System.Globalization;
using Daxlin.Core.Json;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Posting.Layouts;

/// <summary>Names the files of a run: one a run, a vendor or an invoice, and one a table where names say so.</summary>
/// <remarks>
/// Of a vendor's words only letters and digits are taken, in which no file system sees anything else: "Bréal / Sons" is
/// <c>Bréal-Sons</c>. "A/B" and "A B" are two vendors all the same, so the second one's file is <c>A-B-2</c>.
/// </remarks>
public sealed class LayoutFileNames(FileRule rule, RunFacts run)
{
    private const int LongestPart = 60;

    private readonly Dictionary<string, string> owners = new(StringComparer.OrdinalIgnoreCase);

    /// <param name="table">Any of those that stand in one file.</param>
    public string Of(ApprovedInvoice invoice, LayoutTable table)
    {
        var owner = rule.Per switch
        {
            FilesPer.Vendor => invoice.Vendor,
            FilesPer.Invoice => Text(invoice.Id),
            _ => "",
        } + "\n" + (rule.PartsTables ? table.Name : "");
        var wanted = NamesInBraces.Fill(rule.Name, part => part switch
        {
            "run" => Text(run.Number),
            "date" => run.On.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture),
            "invoice" => Text(invoice.Id),
            "vendor" => Plain(invoice.Vendor),
            "number" => Plain(invoice.Fields.GetValueOrDefault(TradeNames.InvoiceNumber, "")),
            "table" => Plain(table.Name),
            _ => null,
        });
        for (var another = 1; ; another++)
        {
            var name = (another == 1 ? wanted : $"{wanted}-{Text(another)}") + "." + rule.Ending;
            if (owners.TryAdd(name, owner) || owners[name] == owner)
                return name;
        }
    }

    private static string Plain(string text)
    {
        var words = new string([.. text.Select(letter => char.IsLetterOrDigit(letter) ? letter : ' ')]).Split(' ', StringSplitOptions.RemoveEmptyEntries);
        var plain = string.Join('-', words);
        return plain.Length == 0 ? "unnamed" : plain[..Math.Min(plain.Length, LongestPart)];
    }

    private static string Text(int number) => number.ToString(CultureInfo.InvariantCulture);
}
