using System.Collections.Immutable;
using System.Globalization;
using Daxlin.Core.Json;
using Daxlin.Core.Posting.Expressions;
using Daxlin.Core.Posting.Layouts;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Posting.Coding;

/// <summary>Reads a document of coding rules and says, by key and line, what is wrong with it. Its keys are told in docs/CODING.md.</summary>
public sealed class CodingReader
{
    /// <summary>The longest document that is read, in characters.</summary>
    public const int Longest = 500_000;

    /// <summary>The longest code, in characters.</summary>
    public const int LongestCode = 60;

    /// <summary>Among how many shares a line can be parted.</summary>
    public const int MostShares = 50;

    private const int MostRules = 2000;

    private const int MostFlags = 200;

    /// <summary>The longest text of a flag, in characters.</summary>
    private const int LongestSaying = 200;

    private readonly FaultList faults = new();
    private readonly ExpressionPlaces expressions;

    private CodingReader(TranslationLists lists) => expressions = new ExpressionPlaces(faults, lists);

    /// <exception cref="JsonFaultException">The document has faults.</exception>
    public static CodingRules Read(string json, TranslationLists lists)
    {
        if (json.Length > Longest)
            throw new JsonFaultException([new JsonFault("the document", 0, $"Coding rules have at most {Longest} characters.")]);
        var reader = new CodingReader(lists);
        var rules = reader.ReadRules(JsonPlaceReader.Read(json));
        reader.faults.ThrowIfAny();
        return rules;
    }

    private CodingRules ReadRules(JsonPlace place)
    {
        if (!faults.IsObjectOf(place, "names", "needs", "rules", "flags", "journal"))
            return CodingRules.None;
        expressions.ReadOwnNames(place.Find("names"), LayoutNames.OfCoding);
        return new CodingRules(ReadNeeds(place.Find("needs")), ReadList(place), ReadJournal(place.Find("journal")))
        {
            Flags = ReadFlags(place.Find("flags")),
        };
    }

    private ImmutableArray<CodingFlag> ReadFlags(JsonPlace? place)
    {
        if (place is null)
            return [];
        if (!place.IsArray || place.Items.Length > MostFlags)
        {
            faults.Add(place, $"At most {MostFlags} flags in brackets are wanted here.");
            return [];
        }
        return [.. place.Items.Select(ReadFlag).OfType<CodingFlag>()];
    }

    private CodingFlag? ReadFlag(JsonPlace place)
    {
        if (!faults.IsObjectOf(place, "says", "when", "of", "holds"))
            return null;
        var says = faults.RequiredText(place, "says").Trim();
        if (says.Length > LongestSaying || says.Any(char.IsControl))
            faults.Add(place.Find("says")!, $"What a flag says is one line of at most {LongestSaying} characters.");
        var ofInvoice = faults.OneOf(place.Find("of"), false, ("lines", false), ("invoice", true));
        if (place.Find("when") is not { } when)
        {
            faults.Add(place, "The key “when” is missing: when it is so.");
            return null;
        }
        var holds = faults.Flag(place.Find("holds"), false);
        return expressions.ReadCondition(when, ofInvoice ? LayoutNames.OfInvoiceCoding : LayoutNames.OfCoding) is { } condition && says.Length > 0
            ? new CodingFlag(says, ofInvoice, condition, holds) : null;
    }

    private ImmutableArray<string> ReadNeeds(JsonPlace? place)
    {
        var needs = faults.Texts(place);
        foreach (var need in needs.Where(need => !CodeNames.All.Contains(need)))
            faults.Add(place!, $"“{need}” is no code; there are {Codes}.");
        return needs;
    }

    private static string Codes => string.Join(", ", CodeNames.All);

    private ImmutableArray<CodingRule> ReadList(JsonPlace parent)
    {
        if (parent.Find("rules") is not { } place)
        {
            faults.Add(parent, "The key “rules” is missing: which lines get which codes.");
            return [];
        }
        if (!place.IsArray || place.Items.Length > MostRules)
        {
            faults.Add(place, $"At most {MostRules} rules in brackets are wanted here.");
            return [];
        }
        return [.. place.Items.Select(ReadRule).OfType<CodingRule>()];
    }

    private CodingRule? ReadRule(JsonPlace place)
    {
        if (!faults.IsObjectOf(place, ["of", "when", "shares", .. CodeNames.All]))
            return null;
        var shares = ReadShares(place.Find("shares"));
        var codes = ReadCodes(place);
        if (codes.IsEmpty && shares.IsEmpty)
            faults.Add(place, $"The rule says no code: one of {Codes}, or “shares”.");
        return new CodingRule(faults.Text(place.Find("of")), expressions.ReadCondition(place.Find("when"), LayoutNames.OfCoding), codes, shares);
    }

    private ImmutableArray<CodingShare> ReadShares(JsonPlace? place)
    {
        if (place is null)
            return [];
        if (!place.IsArray || place.Items.Length is < 2 or > MostShares)
        {
            faults.Add(place, $"Two to {MostShares} shares in brackets are wanted here, each with its “part” and its codes.");
            return [];
        }
        var shares = ImmutableArray.CreateBuilder<CodingShare>();
        foreach (var item in place.Items)
        {
            if (!faults.IsObjectOf(item, ["part", .. CodeNames.All]))
                continue;
            var codes = ReadCodes(item);
            if (codes.IsEmpty)
                faults.Add(item, $"The share says no code: one of {Codes}.");
            shares.Add(new CodingShare(ReadPart(item), codes));
        }
        return shares.DrainToImmutable();
    }

    private decimal ReadPart(JsonPlace parent)
    {
        if (parent.Find("part") is { } place && (place.IsString || place.Kind == System.Text.Json.JsonTokenType.Number)
            && decimal.TryParse(place.Text, NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var part) && IsPart(part))
            return part;
        faults.Add(parent.Find("part") ?? parent, "A share needs its “part”: a number above 0, as 60. What counts is the parts' proportion.");
        return 1;
    }

    /// <summary>Says that shares can have so many parts.</summary>
    internal static bool IsPart(decimal part) => part is > 0 and <= 1_000_000 && part.Scale <= 6;

    private ImmutableSortedDictionary<string, Expression> ReadCodes(JsonPlace parent)
    {
        var codes = ImmutableSortedDictionary.CreateBuilder<string, Expression>(StringComparer.Ordinal);
        foreach (var name in CodeNames.All)
        {
            if (parent.Find(name) is { } place && ReadCode(place, LayoutNames.OfCoding) is { } code)
                codes[name] = code;
        }
        return codes.ToImmutable();
    }

    /// <summary>A text is the code itself: "0410" keeps its zero. What is worked out stands in an object, { "value": "list 'berths' at section" }.</summary>
    private Expression? ReadCode(JsonPlace place, ImmutableDictionary<string, ExpressionType> names)
    {
        if (place.IsString)
        {
            if (FaultOf(place.Text) is { } fault)
                faults.Add(place, fault);
            return new Constant(ExpressionType.Text, place.Text.Trim());
        }
        if (!place.IsObject)
        {
            faults.Add(place, "A code is wanted here, in quotes, or an object with “value”, from which it is worked out.");
            return null;
        }
        if (!faults.IsObjectOf(place, "value"))
            return null;
        if (place.Find("value") is not { } value)
        {
            faults.Add(place, "The key “value” is missing.");
            return null;
        }
        if (expressions.Read(value, names) is not { } expression)
            return null;
        if (expression.Type is ExpressionType.Text or ExpressionType.Number)
            return expression;
        faults.Add(value, $"A code is a text or a number; this is {expression.Type.Spoken()}.");
        return null;
    }

    /// <summary>What is wrong with a code; null for nothing.</summary>
    internal static string? FaultOf(string code) =>
        string.IsNullOrWhiteSpace(code) ? "This code is empty."
        : code.Trim().Length > LongestCode ? $"A code has at most {LongestCode} characters."
        : code.Any(char.IsControl) ? "A code is one line of plain letters." : null;

    private JournalAccounts? ReadJournal(JsonPlace? place)
    {
        if (place is null || !faults.IsObjectOf(place, "payable", "tax", "freight", "discount", "rounding"))
            return null;
        var payable = Required("payable", "what is owed to vendors", LayoutNames.Of(LayoutRecords.Invoices));
        var tax = Required("tax", "taxes", LayoutNames.Of(LayoutRecords.Taxes));
        return payable is null || tax is null ? null : new JournalAccounts(payable, tax, Account("freight"), Account("discount"), Account("rounding"));

        Expression? Required(string key, string what, ImmutableDictionary<string, ExpressionType> names)
        {
            if (place.Find(key) is { } own)
                return ReadCode(own, names);
            faults.Add(place, $"The key “{key}” is missing: the account of {what}.");
            return null;
        }

        Expression? Account(string key) => place.Find(key) is { } own ? ReadCode(own, LayoutNames.Of(LayoutRecords.Invoices)) : null;
    }
}
