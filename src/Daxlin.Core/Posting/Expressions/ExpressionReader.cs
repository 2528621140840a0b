using System.Collections.Immutable;
using System.Globalization;
using Daxlin.Core.Json;

namespace Daxlin.Core.Posting.Expressions;

/// <summary>Reads an expression and says by its place what is wrong with it. Its words are told in docs/POSTING.md.</summary>
/// <remarks>
/// Loosest first: <c>… if … else …</c>; <c>or</c>; <c>and</c>; <c>not</c>; one comparison; <c>&amp;</c>; <c>rounded</c> and <c>without sign</c>; <c>+ -</c>; <c>* /</c>;
/// words behind a value (<c>without</c>, <c>otherwise</c> …); words before one (<c>first 3 of</c>, <c>month of</c> …). Operator precedence by
/// recursive descent, one method a level.
/// </remarks>
public sealed class ExpressionReader
{
    /// <summary>The longest expression that is read, in characters.</summary>
    public const int Longest = 2000;

    /// <summary>How deep expressions may stand in one another.</summary>
    private const int Deepest = 40;

    private readonly IReadOnlyDictionary<string, ExpressionType> names;
    private readonly TranslationLists lists;
    private readonly TokenCursor cursor;
    private int depth;

    private ExpressionReader(string text, IReadOnlyDictionary<string, ExpressionType> names, TranslationLists lists)
    {
        this.names = names;
        this.lists = lists;
        cursor = new TokenCursor(Tokens.Of(text));
    }

    /// <param name="names">The names that a record has, and what they are.</param>
    /// <exception cref="ExpressionFaultException">It cannot be read.</exception>
    public static Expression Read(string text, IReadOnlyDictionary<string, ExpressionType> names, TranslationLists lists)
    {
        if (text.Length > Longest)
            throw new ExpressionFaultException(Longest, $"An expression has at most {Longest} characters; this one has {text.Length}.");
        var reader = new ExpressionReader(text, names, lists);
        var expression = reader.ReadChoice();
        return reader.cursor.Here.Kind == TokenKind.End ? expression
            : throw new ExpressionFaultException(reader.cursor.Here.At, $"Before {reader.cursor.Here.Spoken} a sign or a word is missing that says what is to be done with it.");
    }

    private Expression ReadChoice()
    {
        if (++depth > Deepest)
            throw new ExpressionFaultException(cursor.Here.At, $"Expressions stand in one another more than {Deepest} deep here.");
        var value = ReadOr();
        if (cursor.Takes("if"))
        {
            var condition = ReadYesNo(ReadOr);
            cursor.Want("else");
            var at = cursor.Here.At;
            var other = ReadChoice();
            if (other.Type != value.Type)
                throw new ExpressionFaultException(at, $"What stands before “if” is {value.Type.Spoken()}, this is {other.Type.Spoken()}; both must be the same.");
            value = new Choice(condition, value, other);
        }
        depth--;
        return value;
    }

    private Expression ReadOr()
    {
        var left = ReadAnd();
        while (cursor.Here.Is("or"))
            left = Logical(left, ReadAnd, (a, b) => a || b);
        return left;
    }

    private Expression ReadAnd()
    {
        var left = ReadNot();
        while (cursor.Here.Is("and"))
            left = Logical(left, ReadNot, (a, b) => a && b);
        return left;
    }

    private Weighed Logical(Expression left, Func<Expression> readRight, Func<bool, bool, bool> work)
    {
        var word = cursor.Take();
        if (left.Type != ExpressionType.YesNo)
            throw new ExpressionFaultException(word.At, $"“{word.Text}” stands between two conditions; before it is {left.Type.Spoken()}.");
        var right = ReadYesNo(readRight);
        return new Weighed(ExpressionType.YesNo, [left, right], values => work(values[0] is true, values[1] is true));
    }

    private Expression ReadNot() => cursor.Takes("not")
        ? new Weighed(ExpressionType.YesNo, [ReadYesNo(ReadNot)], values => values[0] is not true)
        : ReadComparison();

    private Expression ReadYesNo(Func<Expression> read) => ReadOf(ExpressionType.YesNo, read, "A condition is wanted here, as amount > 0");

    private Expression ReadOf(ExpressionType type, Func<Expression> read, string wanted)
    {
        var at = cursor.Here.At;
        var value = read();
        return value.Type == type ? value : throw new ExpressionFaultException(at, $"{wanted}; this is {value.Type.Spoken()}.");
    }

    private Expression ReadComparison()
    {
        var left = ReadJoined();
        var sign = cursor.Here;
        if (cursor.Takes("is", "missing"))
            return new Weighed(ExpressionType.YesNo, [left], values => values[0] is null);
        if (cursor.Takes("is", "there"))
            return new Weighed(ExpressionType.YesNo, [left], values => values[0] is not null);
        if (cursor.Takes("is", "one"))
            return ReadOneOf(left);
        if (cursor.Takes("contains"))
            return TextTest(left, sign, (text, part) => text.Contains(part, StringComparison.OrdinalIgnoreCase));
        if (cursor.Takes("begins", "with"))
            return TextTest(left, sign, (text, part) => text.StartsWith(part, StringComparison.OrdinalIgnoreCase));
        if (cursor.Takes("ends", "with"))
            return TextTest(left, sign, (text, part) => text.EndsWith(part, StringComparison.OrdinalIgnoreCase));
        if (sign.Kind != TokenKind.Sign || sign.Text is not ("=" or "<>" or "<" or "<=" or ">" or ">="))
            return left;
        cursor.Take();
        var right = ReadJoined();
        if (right.Type != left.Type)
            throw new ExpressionFaultException(sign.At, $"“{sign.Text}” compares {left.Type.Spoken()} with {right.Type.Spoken()}; that is never so.");
        if (sign.Text is "=")
            return new Weighed(ExpressionType.YesNo, [left, right], values => Operations.AreSame(values[0], values[1]));
        if (sign.Text is "<>")
            return new Weighed(ExpressionType.YesNo, [left, right], values => !Operations.AreSame(values[0], values[1]));
        if (left.Type == ExpressionType.YesNo)
            throw new ExpressionFaultException(sign.At, $"“{sign.Text}” cannot tell yes from no.");
        return new Worked(ExpressionType.YesNo, [left, right], (values, _) => Operations.Compares(sign.Text, values[0], values[1]));
    }

    private Weighed ReadOneOf(Expression left)
    {
        cursor.Want("of");
        cursor.Want("(");
        var others = ImmutableArray.CreateBuilder<Expression>();
        do
            others.Add(ReadOf(left.Type, ReadJoined, $"{Capital(left.Type.Spoken())} is wanted here, as before “is one of”"));
        while (cursor.Takes(","));
        cursor.Want(")");
        return new Weighed(ExpressionType.YesNo, [left, .. others], values => values[0] is not null && values.Skip(1).Any(other => Operations.AreSame(values[0], other)));
    }

    private Worked TextTest(Expression left, Token word, Func<string, string, bool> test)
    {
        if (left.Type != ExpressionType.Text)
            throw new ExpressionFaultException(word.At, $"“{word.Text}” looks into a text; before it is {left.Type.Spoken()}.");
        var part = ReadOf(ExpressionType.Text, ReadJoined, "A text in quotes is wanted here");
        return new Worked(ExpressionType.YesNo, [left, part], (values, _) => test((string)values[0], (string)values[1]));
    }

    private Expression ReadJoined()
    {
        var left = ReadRounded();
        while (cursor.Takes("&"))
        {
            var right = ReadRounded();
            left = new Weighed(ExpressionType.Text, [left, right], values => Operations.Bounded(ExpressionTypes.Settled(values[0]) + ExpressionTypes.Settled(values[1])));
        }
        return left;
    }

    /// <summary>A sum with the words behind it that change all of it, as they are spoken: <c>a + b * c rounded to 2</c>.</summary>
    private Expression ReadRounded()
    {
        var value = ReadSum();
        while (true)
        {
            var word = cursor.Here;
            if (cursor.Takes("rounded"))
                value = Operations.Rounded(Numeric(value, word), cursor.Takes("to") ? cursor.WholeNumber(10) : null);
            else if (cursor.Takes("without", "sign"))
                value = new Worked(ExpressionType.Number, [Numeric(value, word)], (values, _) => Math.Abs((decimal)values[0]));
            else
                return value;
        }
    }

    private Expression ReadSum()
    {
        var left = ReadProduct();
        while (cursor.Here.Is("+") || cursor.Here.Is("-"))
        {
            var sign = cursor.Take();
            left = Operations.Sum(left, ReadProduct(), sign);
        }
        return left;
    }

    private Expression ReadProduct()
    {
        var left = ReadChanged();
        while (cursor.Here.Is("*") || cursor.Here.Is("/"))
        {
            var sign = cursor.Take();
            left = Operations.Product(left, ReadChanged(), sign);
        }
        return left;
    }

    /// <summary>A value with the words behind it that change it.</summary>
    private Expression ReadChanged()
    {
        var value = ReadBefore();
        while (true)
        {
            var word = cursor.Here;
            if (cursor.Here.Is("without") && cursor.Next.Is("sign"))
                return value;
            if (cursor.Takes("without"))
                value = Operations.Replaced(Textual(value, word), ReadText(), new Constant(ExpressionType.Text, ""));
            else if (cursor.Takes("with"))
            {
                var from = ReadText();
                cursor.Want("as");
                value = Operations.Replaced(Textual(value, word), from, ReadText());
            }
            else if (cursor.Takes("in", "capitals"))
                value = new Worked(ExpressionType.Text, [Textual(value, word)], (values, _) => ((string)values[0]).ToUpperInvariant());
            else if (cursor.Takes("in", "small"))
            {
                cursor.Want("letters");
                value = new Worked(ExpressionType.Text, [Textual(value, word)], (values, _) => ((string)values[0]).ToLowerInvariant());
            }
            else if (cursor.Takes("otherwise"))
                value = new Weighed(value.Type, [value, ReadOf(value.Type, ReadBefore, $"{Capital(value.Type.Spoken())} is wanted here, as before “otherwise”")], values => values[0] ?? values[1]);
            else
                return value;
        }
    }

    private Expression ReadText() => ReadOf(ExpressionType.Text, ReadBefore, "A text in quotes is wanted here");

    private static Expression Numeric(Expression value, Token word) => value.Type == ExpressionType.Number ? value
        : throw new ExpressionFaultException(word.At, $"“{word.Text}” changes a number; before it is {value.Type.Spoken()}.");

    private static Expression Textual(Expression value, Token word) => value.Type == ExpressionType.Text ? value
        : throw new ExpressionFaultException(word.At, $"“{word.Text}” changes a text; before it is {value.Type.Spoken()}.");

    /// <summary>A value with the words before it that take a part of it.</summary>
    private Expression ReadBefore()
    {
        if (++depth > Deepest)
            throw new ExpressionFaultException(cursor.Here.At, $"Expressions stand in one another more than {Deepest} deep here.");
        var value = ReadBeforeInside();
        depth--;
        return value;
    }

    private Expression ReadBeforeInside()
    {
        if (cursor.Takes("-"))
            return new Worked(ExpressionType.Number, [ReadOf(ExpressionType.Number, ReadBefore, "A number is wanted behind the minus")], (values, _) => -(decimal)values[0]);
        var isName = names.ContainsKey(cursor.Here.Text);
        if (!isName && (cursor.Here.Is("first") || cursor.Here.Is("last")))
        {
            var isFirst = cursor.Take().Text == "first";
            var count = cursor.WholeNumber(Longest);
            return Operations.Part(ReadOfText(), isFirst, count);
        }
        if (!isName && cursor.Takes("letters"))
        {
            var from = cursor.WholeNumber(Longest);
            cursor.Want("to");
            var to = cursor.WholeNumber(Longest);
            return Operations.Middle(ReadOfText(), from, to);
        }
        if (!isName && cursor.Here.Kind == TokenKind.Word && cursor.Next.Is("of"))
            return ReadPropertyOf();
        return !isName && cursor.Takes("list") ? ReadFromList() : ReadPlain();
    }

    /// <summary><c>month of invoiceDate</c>, <c>length of description</c>, <c>number of deposit</c>.</summary>
    private Worked ReadPropertyOf()
    {
        var word = cursor.Take();
        switch (word.Text)
        {
            case "end":
                cursor.Want("of");
                cursor.Want("month");
                return new Worked(ExpressionType.Date, [ReadOfType(ExpressionType.Date)], (values, _) => Operations.EndOfMonth((DateOnly)values[0]));
            case "day" or "month" or "year":
                return new Worked(ExpressionType.Number, [ReadOfType(ExpressionType.Date)], (values, _) => Operations.PartOfDate(word.Text, (DateOnly)values[0]));
            case "length":
                return new Worked(ExpressionType.Number, [ReadOfType(ExpressionType.Text)], (values, _) => (decimal)((string)values[0]).Length);
            case "number":
                return new Worked(ExpressionType.Number, [ReadOfType(ExpressionType.Text)], (values, _) => Operations.Converted(ExpressionType.Number, (string)values[0]));
            case "date":
                return new Worked(ExpressionType.Date, [ReadOfType(ExpressionType.Text)], (values, _) => Operations.Converted(ExpressionType.Date, (string)values[0]));
            case "text":
                cursor.Want("of");
                return new Worked(ExpressionType.Text, [ReadBefore()], (values, _) => ExpressionTypes.Settled(values[0]));
            default:
                throw new ExpressionFaultException(
                    word.At, $"“{word.Text} of” is unknown; there are day of, month of, year of, end of month of, length of, number of, date of, text of, first 3 of, last 3 of and letters 2 to 5 of.");
        }
    }

    private Expression ReadOfText() => ReadOfType(ExpressionType.Text);

    private Expression ReadOfType(ExpressionType type)
    {
        cursor.Want("of");
        return ReadOf(type, ReadBefore, $"{Capital(type.Spoken())} is wanted here");
    }

    /// <summary><c>list "accounts" at vendor</c>.</summary>
    private FromList ReadFromList()
    {
        var name = cursor.Take();
        if (name.Kind != TokenKind.Text)
            throw new ExpressionFaultException(name.At, "The name of a list is wanted here, in quotes.");
        if (lists.Find(name.Text) is null)
            throw new ExpressionFaultException(name.At, $"There is no list “{name.Text}”; {(lists.Names.Any() ? $"there are {string.Join(", ", lists.Names)}" : "there are none yet")}.");
        cursor.Want("at");
        var word = ReadOf(ExpressionType.Text, ReadBefore, "A text is wanted here, which is looked up in the list");
        return new FromList(name.Text, word);
    }

    private Expression ReadPlain()
    {
        var token = cursor.Take();
        switch (token.Kind)
        {
            case TokenKind.Number:
                return decimal.TryParse(token.Text, NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var number) ? new Constant(ExpressionType.Number, number)
                    : throw new ExpressionFaultException(token.At, $"“{token.Text}” is no number; decimals stand behind a point, as 0.5.");
            case TokenKind.Text:
                return new Constant(ExpressionType.Text, token.Text);
            case TokenKind.Sign when token.Text == "(":
                var inside = ReadChoice();
                cursor.Want(")");
                return inside;
            case TokenKind.Word when names.TryGetValue(token.Text, out var type):
                return new NamedValue(type, token.Text);
            case TokenKind.Word when token.Text is "yes" or "no":
                return new Constant(ExpressionType.YesNo, token.Text == "yes");
            case TokenKind.Word:
                throw new ExpressionFaultException(token.At, Slips.Meant(token.Text, [.. names.Keys]) is { } meant
                    ? $"There is no “{token.Text}” here; “{meant}” is meant, perhaps."
                    : $"There is no “{token.Text}” here. A text stands in quotes; names are {string.Join(", ", names.Keys.Order(StringComparer.Ordinal))}.");
            default:
                throw new ExpressionFaultException(token.At, $"A value is missing here: a name, a number or a text in quotes, not {token.Spoken}.");
        }
    }

    private static string Capital(string text) => char.ToUpperInvariant(text[0]) + text[1..];
}
