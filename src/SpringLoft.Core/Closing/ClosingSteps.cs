namespace SpringLoft.Core.Closing;

/// <summary>The steps of closing one class, in their order. Each is safe to repeat.</summary>
public enum ClosingStep { TakeHomes, ArchivePackage, Check, Archive }

/// <summary>What became of a step, or of a class in a run.</summary>
public enum StepState { Waiting, Working, Done, Failed, Skipped }

/// <summary>Orders the steps.</summary>
public static class ClosingSteps
{
    /// <summary>All steps in order.</summary>
    public static readonly IReadOnlyList<ClosingStep> InOrder = [ClosingStep.TakeHomes, ClosingStep.ArchivePackage, ClosingStep.Check, ClosingStep.Archive];

    /// <summary>The step to do next: the first that is not done; null when all are. A step that a killed process left working is done again.</summary>
    public static ClosingStep? Next(IReadOnlyDictionary<ClosingStep, StepState> states)
    {
        foreach (var step in InOrder)
            if (states.GetValueOrDefault(step, StepState.Waiting) != StepState.Done) return step;
        return null;
    }
}
