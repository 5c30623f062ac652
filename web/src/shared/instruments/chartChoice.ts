const key = 'ruddy-pull-chart';

export type Chart = 'trace' | 'card';

/** Which chart the instrument shows, kept on this screen. */
class ChartChoice {
  private readonly listeners = new Set<() => void>();
  private chart: Chart = localStorage.getItem(key) === 'card' ? 'card' : 'trace';

  readonly shown = () => this.chart;

  readonly subscribe = (listener: () => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  readonly turn = () => {
    this.chart = this.chart === 'card' ? 'trace' : 'card';
    localStorage.setItem(key, this.chart);
    for (const listener of this.listeners) listener();
  };
}

export const chartChoice = new ChartChoice();
