using System.Collections.Immutable;
using System.Text.Json;
using System.Text.RegularExpressions;
using CsCheck;
using Daxlin.Core.Posting;
using Daxlin.Core.Posting.Expressions;
using Daxlin.Core.Posting.Layouts;
using Daxlin.Testing;

namespace Daxlin.Core.Tests;

/// <summary>Expressions come to what docs/POSTING.md says, and a faulty one says where its fault is.</summary>
public partial class ExpressionTests
{
    private static readonly string Docs = File.ReadAllText(Path.Combine(Repository.Root, "docs", "POSTING.md"));

    private static readonly ImmutableDictionary<string, ExpressionType> Names = LayoutNames.Of(LayoutRecords.Lines).Add("deposit", ExpressionType.Text);

    private static readonly TranslationLists Lists = new(
    [
        new TranslationList("accounts",
        [
            new TranslationEntry("Brinewood  chandlery", "4000", DateOnly.MinValue),
            new TranslationEntry("Brinewood Chandlery", "4100", new DateOnly(2026, 1, 31)),
            new TranslationEntry("Brinewood Chandlery", "4200", new DateOnly(2026, 2, 1)),
        ]),
    ]);

    private static readonly PostingRecord Line = new(JsonSerializer.Deserialize<ImmutableDictionary<string, string>>(
        Docs[Docs.IndexOf("tried on this line", StringComparison.Ordinal)..].Split("```json")[1].Split("```")[0])!);

    public static TheoryData<string, string> Examples()
    {
        var examples = new TheoryData<string, string>();
        foreach (Match row in Example().Matches(Docs[Docs.IndexOf("| expression |", StringComparison.Ordinal)..]))
            examples.Add(row.Groups["expression"].Value, row.Groups["result"].Value);
        Assert.True(examples.Count > 30);
        return examples;
    }

    [Theory]
    [MemberData(nameof(Examples))]
    public void An_example_of_the_docs_comes_to_what_stands_beside_it(string expression, string result) =>
        Assert.Equal(result, ExpressionTypes.Settled(Of(expression)));

    private static object? Of(string expression) => ExpressionReader.Read(expression, Names, Lists).Of(ExpressionScope.Of(Line, Lists));

    [Theory]
    [InlineData("", 1, "A value is missing here: a name, a number or a text in quotes, not the end.")]
    [InlineData("amount *", 9, "A value is missing here")]
    [InlineData("amount amount", 8, "Before “amount” a sign or a word is missing")]
    [InlineData("amuont", 1, "There is no “amuont” here; “amount” is meant, perhaps.")]
    [InlineData("Dock", 1, "There is no “Dock” here. A text stands in quotes; names are account, alreadyPaid, ")]
    [InlineData("amount contains \"x\"", 8, "“contains” looks into a text; before it is a number.")]
    [InlineData("vendor + 1", 8, "Texts are joined by “&”")]
    [InlineData("invoiceDate + dueDate", 13, "“+” does not work on a date and a date.")]
    [InlineData("vendor = 4", 8, "“=” compares a text with a number; that is never so.")]
    [InlineData("amount if vendor else 0", 11, "A condition is wanted here, as amount > 0; this is a text.")]
    [InlineData("amount if yes else vendor", 20, "What stands before “if” is a number, this is a text")]
    [InlineData("amount if yes", 14, "“else” is wanted here, not the end.")]
    [InlineData("(amount", 8, "“)” is wanted here")]
    [InlineData("\"open", 1, "The text that begins here is not closed by a quote.")]
    [InlineData("amount # 2", 8, "“#” has no meaning here.")]
    [InlineData("1.2.3", 1, "“1.2.3” is no number")]
    [InlineData("week of invoiceDate", 1, "“week of” is unknown; there are day of")]
    [InlineData("month of amount", 10, "A date is wanted here; this is a number.")]
    [InlineData("first amount of vendor", 7, "A whole number from 0 to 2000 is wanted here, not “amount”.")]
    [InlineData("vendor rounded", 8, "“rounded” changes a number; before it is a text.")]
    [InlineData("amount in capitals", 8, "“in” changes a text")]
    [InlineData("list \"acounts\" at vendor", 6, "There is no list “acounts”; there are accounts.")]
    [InlineData("amount otherwise \"none\"", 18, "A number is wanted here, as before “otherwise”; this is a text.")]
    [InlineData("yes < no", 5, "“<” cannot tell yes from no.")]
    [InlineData("amount and yes", 8, "“and” stands between two conditions; before it is a number.")]
    [InlineData("currency is one of (\"EUR\", 4)", 28, "A text is wanted here, as before “is one of”; this is a number.")]
    public void A_faulty_expression_says_where_and_what(string expression, int at, string message)
    {
        var fault = Assert.Throws<ExpressionFaultException>(() => Of(expression));
        Assert.Equal(at, fault.At);
        Assert.Contains(message, fault.Message, StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("amount / (quantity - 3)", "It divides by 0.")]
    [InlineData("79228162514264337593543950335 * amount", "It comes to a number of more digits than are kept (28).")]
    [InlineData("invoiceDate + 0.5", "A date cannot be moved by 0.5 days.")]
    [InlineData("invoiceDate - 99999999", "A date cannot be moved by -99999999 days.")]
    [InlineData("number of vendor", "“Brinewood Chandlery” is not a number.")]
    [InlineData("date of deposit", "“12.50” is not a date.")]
    public void What_cannot_be_worked_out_says_why(string expression, string message) =>
        Assert.Equal(message, Assert.Throws<EvaluationException>(() => Of(expression)).Message);

    [Fact]
    public void The_side_of_a_choice_that_is_not_wanted_is_not_worked_out() =>
        Assert.Equal(0m, Of("amount / (quantity - 3) if quantity <> 3 else 0"));

    [Fact]
    public void Whatever_is_typed_is_read_or_refused_at_a_place_in_it_and_comes_to_its_type_or_a_sentence()
    {
        var part = OneOf(
            "amount", "vendor", "invoiceDate", "section", "purchaseOrder", "yes", "12.5", "0", "\"a\"", "''", "'", "+", "-", "*", "/", "&", "(", ")", ",", "=", "<", ">", "<>", "<=", ">=", "if", "else",
            "and", "or", "not", "is missing", "is there", "contains", "begins with", "is one of", "rounded", "rounded to 2", "without sign", "without", "with", "as", "in capitals", "otherwise",
            "first 2 of", "last", "letters 1 to 3 of", "month of", "end of month of", "number of", "date of", "text of", "list \"accounts\" at", "of", "”", "?", "é");
        var text = Gen.Select(part.Array[1, 6], parts => string.Join(' ', parts));
        var read = 0;
        text.Sample(
            expression =>
            {
                try
                {
                    var made = ExpressionReader.Read(expression, Names, Lists);
                    Interlocked.Increment(ref read);
                    var value = made.Of(ExpressionScope.Of(Line, Lists));
                    return value is null || made.Type == value switch
                    {
                        decimal => ExpressionType.Number,
                        string => ExpressionType.Text,
                        DateOnly => ExpressionType.Date,
                        _ => ExpressionType.YesNo,
                    };
                }
                catch (ExpressionFaultException fault)
                {
                    return fault.At >= 1 && fault.At <= expression.Length + 1 && fault.Message.EndsWith('.');
                }
                catch (EvaluationException fault)
                {
                    return fault.Message.EndsWith('.');
                }
            },
            iter: 20_000);
        Assert.True(read > 500, $"only {read} could be read");
    }

    [Fact]
    public void Neither_depth_nor_length_brings_it_down()
    {
        Assert.Contains("more than 40 deep", Assert.Throws<ExpressionFaultException>(() => Of(new string('(', 900) + "1" + new string(')', 900))).Message, StringComparison.Ordinal);
        Assert.Contains("more than 40 deep", Assert.Throws<ExpressionFaultException>(() => Of(string.Concat(Enumerable.Repeat("text of ", 200)) + "1")).Message, StringComparison.Ordinal);
        Assert.Contains("at most 2000 characters", Assert.Throws<ExpressionFaultException>(() => Of(new string(' ', 2001))).Message, StringComparison.Ordinal);
        var growing = "vendor" + string.Concat(Enumerable.Repeat(" with \"r\" as \"rrrrrrrrrrrrrrrrrrrrrrrrrrrrrr\"", 12));
        Assert.Contains("more than 32000 letters", Assert.Throws<EvaluationException>(() => Of(growing)).Message, StringComparison.Ordinal);
    }

    private static Gen<string> OneOf(params string[] some) => Gen.Int[0, some.Length - 1].Select(at => some[at]);

    [GeneratedRegex(@"^\| `(?<expression>[^`]+)` \| (?<result>.*?) ?\|$", RegexOptions.Multiline)]
    private static partial Regex Example();
}
