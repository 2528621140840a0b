namespace Daxlin.Core.Values;

/// <summary>The order of a date in figures: 03/04/2026 is 3 April day first and 4 March month first.</summary>
public enum DateOrder
{
    DayFirst,
    MonthFirst,
    YearFirst,
}
