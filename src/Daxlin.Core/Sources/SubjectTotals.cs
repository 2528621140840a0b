using System.Collections.Immutable;
using System.Text.RegularExpressions;
using Daxlin.Core.Json;
using Daxlin.Core.Posting;
using Daxlin.Core.Values;

namespace Daxlin.Core.Sources;

/// <summary>How senders state in the subject what the invoices of a message come to.</summary>
/// <param name="Pattern">With names in braces; all else stands in the subject as it is written here: <c>{invoices} invoices, {sum} {currency}</c>.</param>
/// <param name="Currency">ISO 4217, where the subject says none.</param>
public sealed record SubjectTotals(string Pattern, string Currency)
{
    public const string InvoicesName = "invoices";
    public const string SumName = "sum";
    public const string CurrencyName = "currency";

    /// <summary>The names that may stand in braces.</summary>
    public static ImmutableArray<string> Known { get; } = [InvoicesName, SumName, CurrencyName];

    /// <summary>What stands in braces.</summary>
    public IEnumerable<string> Names => NamesInBraces.Of(Pattern);

    /// <returns>Nothing where the subject states nothing; where what stands in its places can be no total, why.</returns>
    public (ImmutableArray<StatedTotal> Stated, string Fault) Read(string subject)
    {
        if (Form.Match(subject) is not { Success: true } match)
            return ([], "");
        string Part(string name) => match.Groups[name].Value.Trim();
        var code = Part(CurrencyName) is { Length: > 0 } said ? said.ToUpperInvariant() : Currency;
        if (Values.Currency.Find(code) is not { } currency)
            return ([], $"“{code}” is no currency of ISO 4217; one is EUR.");
        var (stated, fault) = CoverSheet.Of(currency, Part(InvoicesName), Part(SumName));
        return stated is null ? ([], fault) : ([stated], "");
    }

    /// <remarks>Blanks are alike however many there are; upper and lower case are alike. Nothing in it can be matched in two ways for long.</remarks>
    private Regex Form => new(
        string.Concat(Regex.Split(Pattern, @"(\{[^{}]*\})").Select(part => part switch
        {
            $"{{{InvoicesName}}}" => $@"(?<{InvoicesName}>\b[0-9]{{1,9}}\b)",
            $"{{{SumName}}}" => $@"(?<{SumName}>(?<![0-9.,'-])-?[0-9](?:[0-9.,' ]{{0,30}}[0-9])?(?![0-9]))",
            $"{{{CurrencyName}}}" => $@"(?<{CurrencyName}>\b[A-Za-z]{{3}}\b)",
            _ => Regex.Replace(Regex.Escape(part), @"(\\ |\s)+", @"\s+"),
        })), RegexOptions.IgnoreCase | RegexOptions.CultureInvariant, TimeSpan.FromSeconds(1));
}
