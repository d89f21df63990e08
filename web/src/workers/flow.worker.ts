import { forecastFlow, type FlowForecast, type ForecastRequest } from '@wick/core/flow/forecast';
import { ModelError } from '@wick/core/model-error';
import { expose, transfer } from 'comlink';

export type FlowAnswer =
  { readonly ok: true; readonly forecast: FlowForecast } | { readonly ok: false; readonly message: string };

const worker = {
  run(request: ForecastRequest, onProgress: (fraction: number) => void): FlowAnswer {
    try {
      let told = 0;
      const forecast = forecastFlow({
        ...request,
        onProgress: (fraction) => {
          if (fraction - told < 0.04) return;
          told = fraction;
          onProgress(fraction);
        },
      });
      const { positions, triangles } = forecast.mesh;
      return transfer({ ok: true, forecast }, [positions.buffer, triangles.buffer, forecast.arrival.buffer]);
    } catch (error) {
      return {
        ok: false,
        message: error instanceof ModelError ? error.message : `The forecast stopped: ${String(error)}`,
      };
    }
  },
};

export type FlowWorker = typeof worker;
expose(worker);
