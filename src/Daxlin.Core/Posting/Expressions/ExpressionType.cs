namespace Daxlin.Core.Posting.Expressions;

/// <summary>What an expression comes to.</summary>
public enum ExpressionType
{
    /// <summary>A decimal number; amounts are numbers.</summary>
    Number,

    Text,

    Date,

    YesNo,
}
