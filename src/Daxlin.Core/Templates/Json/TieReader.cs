using System.Collections.Immutable;
using System.Globalization;
using System.Text.RegularExpressions;
using Daxlin.Core.Json;

namespace Daxlin.Core.Templates.Json;

/// <summary>Reads equations as they are written down: <c>deposit + balance = total</c>.</summary>
/// <remarks>
/// <code>
/// tie    = side "=" side
/// side   = ["-"] term { ("+" | "-") term }
/// term   = factor { ("×" | "*") factor }
/// factor = number | field | list "." column | "sum of" list "." column
/// </code>
/// An equation with a column that is not added up holds on each row of its list.
/// </remarks>
internal static partial class TieReader
{
    private const int LongestTie = 200;
    private const int MostTies = 50;

    public static ImmutableArray<TieRule> ReadAll(JsonPlace? place, ImmutableArray<FieldRule> fields, ImmutableArray<BlockRule> blocks, FaultList faults)
    {
        if (place is null)
            return [];
        if (!place.IsArray || place.Items.Length > MostTies)
        {
            faults.Add(place, $"A list of equations is wanted here, {MostTies} at most: [\"deposit + balance = total\"].");
            return [];
        }
        var ties = ImmutableArray.CreateBuilder<TieRule>();
        foreach (var item in place.Items)
        {
            if (!item.IsString || item.Text.Length > LongestTie)
                faults.Add(item, $"An equation is a text of {LongestTie} characters at most, such as \"deposit + balance = total\".");
            else if (Read(item.Text, fields, blocks, out var fault) is { } tie)
                ties.Add(tie);
            else
                faults.Add(item, fault);
        }
        return ties.ToImmutable();
    }

    private static TieRule? Read(string text, ImmutableArray<FieldRule> fields, ImmutableArray<BlockRule> blocks, out string fault)
    {
        fault = "";
        var tokens = Tokens().Matches(text).Select(match => match.Value).Where(token => !string.IsNullOrWhiteSpace(token)).ToList();
        if (tokens.Count(token => token == "=") != 1)
        {
            fault = $"An equation has one “=”: “{text}”.";
            return null;
        }
        var at = tokens.IndexOf("=");
        if (Side(tokens[..at], fields, blocks, ref fault) is not { } left || Side(tokens[(at + 1)..], fields, blocks, ref fault) is not { } right)
            return null;
        var tie = new TieRule(text.Trim(), left, right);
        if (tie.Factors.All(factor => factor.Number is not null))
            fault = $"“{text}” has no value that is captured.";
        else if (tie.Factors.Where(factor => factor.IsOfRow).Select(factor => factor.List).Distinct().Count() > 1)
            fault = $"“{text}” has columns of several lists; an equation holds on the rows of one.";
        return fault.Length == 0 ? tie : null;
    }

    private static ImmutableArray<TieTerm>? Side(List<string> tokens, ImmutableArray<FieldRule> fields, ImmutableArray<BlockRule> blocks, ref string fault)
    {
        var terms = ImmutableArray.CreateBuilder<TieTerm>();
        var factors = ImmutableArray.CreateBuilder<TieFactor>();
        var (isTakenOff, wantsFactor) = (false, true);
        for (var at = 0; at < tokens.Count; at++)
        {
            var token = tokens[at];
            if (wantsFactor && token is "-" or "−" && at == 0)
            {
                isTakenOff = true;
            }
            else if (wantsFactor)
            {
                if (Factor(token, fields, blocks, ref fault) is not { } factor)
                    return null;
                factors.Add(factor);
                wantsFactor = false;
            }
            else if (token is "×" or "*")
            {
                wantsFactor = true;
            }
            else if (token is "+" or "-" or "−")
            {
                terms.Add(new TieTerm(isTakenOff, factors.DrainToImmutable()));
                (isTakenOff, wantsFactor) = (token != "+", true);
            }
            else
            {
                fault = $"Before “{token}” a sign is wanted: +, − or ×.";
                return null;
            }
        }
        if (wantsFactor)
        {
            fault = "A side of the equation, or what stands behind a sign, is missing.";
            return null;
        }
        terms.Add(new TieTerm(isTakenOff, factors.DrainToImmutable()));
        return terms.ToImmutable();
    }

    private static TieFactor? Factor(string token, ImmutableArray<FieldRule> fields, ImmutableArray<BlockRule> blocks, ref string fault)
    {
        if (decimal.TryParse(token, NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var number))
            return new TieFactor(number, "", "", false);
        if (Column().Match(token) is { Success: true } column)
        {
            var (list, name) = (column.Groups["list"].Value, column.Groups["column"].Value);
            if (blocks.Any(block => block.List == list && block.Columns.Any(one => one.Name == name)))
                return new TieFactor(null, list, name, column.Groups["sum"].Success);
            var lists = blocks.Select(block => block.List).Distinct().ToList();
            fault = lists.Contains(list) ? $"The rows of “{list}” have no column “{name}”." : $"There are no rows “{list}”; there are {(lists.Count == 0 ? "none" : string.Join(", ", lists))}.";
            return null;
        }
        if (fields.Any(field => field.Name == token))
            return new TieFactor(null, "", token, false);
        fault = Word().IsMatch(token) ? $"There is no field “{token}”; a column is written as lines.{token}, or as sum of lines.{token}." : $"“{token}” cannot be read in an equation.";
        return null;
    }

    [GeneratedRegex(@"sum\s+of\s+[A-Za-z0-9-]+\.[A-Za-z0-9]+|[A-Za-z][A-Za-z0-9-]*\.[A-Za-z0-9]+|[A-Za-z][A-Za-z0-9]*|\d+(?:\.\d+)?|\S", RegexOptions.CultureInvariant)]
    private static partial Regex Tokens();

    [GeneratedRegex(@"^(?<sum>sum\s+of\s+)?(?<list>[A-Za-z][A-Za-z0-9-]*)\.(?<column>[A-Za-z0-9]+)$", RegexOptions.CultureInvariant)]
    private static partial Regex Column();

    [GeneratedRegex("^[A-Za-z][A-Za-z0-9]*$", RegexOptions.CultureInvariant)]
    private static partial Regex Word();
}
