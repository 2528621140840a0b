namespace Daxlin.Core.Posting.Expressions;

/// <summary>What the signs and words of expressions do with values.</summary>
internal static class Operations
{
    /// <summary>The longest text that an expression may come to, as a spreadsheet's cell.</summary>
    private const int LongestText = 32_000;

    public static string Bounded(string text) =>
        text.Length <= LongestText ? text : throw new EvaluationException($"It comes to a text of more than {LongestText} letters.");

    /// <summary>Texts are the same whatever their capitals.</summary>
    public static bool AreSame(object? left, object? right) =>
        left is string text && right is string other ? text.Equals(other, StringComparison.OrdinalIgnoreCase) : Equals(left, right);

    public static bool Compares(string sign, object left, object right)
    {
        var order = left is string text ? string.Compare(text, (string)right, StringComparison.OrdinalIgnoreCase) : ((IComparable)left).CompareTo(right);
        return sign switch
        {
            "<" => order < 0,
            "<=" => order <= 0,
            ">" => order > 0,
            _ => order >= 0,
        };
    }

    /// <summary>Numbers are added; to a date, days; the days between two dates are taken.</summary>
    public static Expression Sum(Expression left, Expression right, Token sign)
    {
        var isMinus = sign.Text == "-";
        return (left.Type, right.Type) switch
        {
            (ExpressionType.Number, ExpressionType.Number) => new Worked(
                ExpressionType.Number, [left, right], (values, _) => isMinus ? (decimal)values[0] - (decimal)values[1] : (decimal)values[0] + (decimal)values[1]),
            (ExpressionType.Date, ExpressionType.Number) => new Worked(
                ExpressionType.Date, [left, right], (values, _) => Moved((DateOnly)values[0], isMinus ? -(decimal)values[1] : (decimal)values[1])),
            (ExpressionType.Date, ExpressionType.Date) when isMinus => new Worked(
                ExpressionType.Number, [left, right], (values, _) => (decimal)(((DateOnly)values[0]).DayNumber - ((DateOnly)values[1]).DayNumber)),
            (ExpressionType.Text, _) or (_, ExpressionType.Text) => throw new ExpressionFaultException(
                sign.At, $"“{sign.Text}” works on numbers; here stand {left.Type.Spoken()} and {right.Type.Spoken()}. Texts are joined by “&”; “number of” makes a number of a text."),
            _ => throw new ExpressionFaultException(sign.At, $"“{sign.Text}” does not work on {left.Type.Spoken()} and {right.Type.Spoken()}."),
        };
    }

    public static Expression Product(Expression left, Expression right, Token sign)
    {
        if (left.Type != ExpressionType.Number || right.Type != ExpressionType.Number)
            throw new ExpressionFaultException(sign.At, $"“{sign.Text}” works on numbers; here stand {left.Type.Spoken()} and {right.Type.Spoken()}.");
        return new Worked(
            ExpressionType.Number, [left, right], sign.Text == "*" ? (values, _) => (decimal)values[0] * (decimal)values[1] : (values, _) => (decimal)values[0] / (decimal)values[1]);
    }

    /// <summary>Half away from zero, to the digits that are said or to those of the record's currency.</summary>
    public static Expression Rounded(Expression value, int? digits) => new Worked(
        ExpressionType.Number, [value], (values, scope) => Math.Round((decimal)values[0], digits ?? scope.MinorUnits, MidpointRounding.AwayFromZero));

    public static Expression Replaced(Expression text, Expression from, Expression to) => new Worked(
        ExpressionType.Text, [text, from, to], (values, _) => (string)values[1] is { Length: > 0 } sought
            ? Bounded(((string)values[0]).Replace(sought, (string)values[2], StringComparison.OrdinalIgnoreCase)) : values[0]);

    public static Expression Part(Expression text, bool isFirst, int count) => new Worked(ExpressionType.Text, [text], (values, _) =>
    {
        var whole = (string)values[0];
        var length = Math.Min(count, whole.Length);
        return isFirst ? whole[..length] : whole[^length..];
    });

    public static Expression Middle(Expression text, int from, int to) => new Worked(ExpressionType.Text, [text], (values, _) =>
    {
        var whole = (string)values[0];
        var start = Math.Clamp(from - 1, 0, whole.Length);
        return whole[start..Math.Clamp(to, start, whole.Length)];
    });

    public static object PartOfDate(string part, DateOnly date) => (decimal)(part switch
    {
        "day" => date.Day,
        "month" => date.Month,
        _ => date.Year,
    });

    public static object EndOfMonth(DateOnly date) => new DateOnly(date.Year, date.Month, DateTime.DaysInMonth(date.Year, date.Month));

    /// <summary>A text as a number or a date, in the settled form.</summary>
    public static object Converted(ExpressionType type, string text) =>
        type.Read(text) ?? throw new EvaluationException($"“{text}” is not {type.Spoken()}.");

    private static DateOnly Moved(DateOnly date, decimal days)
    {
        if (days != Math.Truncate(days) || Math.Abs(days) > 100_000)
            throw new EvaluationException($"A date cannot be moved by {ExpressionTypes.Settled(days)} days.");
        var day = date.DayNumber + (int)days;
        return day >= DateOnly.MinValue.DayNumber && day <= DateOnly.MaxValue.DayNumber ? DateOnly.FromDayNumber(day)
            : throw new EvaluationException("It comes to a date that no calendar has.");
    }
}
